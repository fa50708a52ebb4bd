import { useCallback } from 'react';
import { addDays, dayInWords, mondayOf } from '../../core/words/calendar';
import { largest, many } from '../../core/words/numbers';
import { ChartBox, type ChartStyle } from '../../ui/ChartBox';
import { DataTable } from '../../ui/DataTable';
import { ScrollRegion } from '../../ui/ScrollRegion';

/** So many weeks are drawn; the table has all. */
const WEEKS = 26;

/** The days of the last half year, darker the more was laid; a day off is only a lighter square. */
export function DayCalendar({
  days,
  today,
}: {
  days: readonly { day: string; drills: number }[];
  today: string;
}) {
  const option = useCallback((style: ChartStyle) => calendarOption(days, today, style), [days, today]);
  return (
    <>
      <h2>Day by day</h2>
      <ChartBox
        option={option}
        className="h-52 w-full"
        label="Drills laid on each day of the last half year"
      />
      <details>
        <summary className="min-h-11 py-2 underline">The same as a table</summary>
        <ScrollRegion label="Drills laid on each day" className="max-h-72">
          <DataTable
            caption="Drills laid on each day"
            rows={[...days].reverse()}
            rowKey={(row) => row.day}
            columns={[
              {
                key: 'day',
                header: 'Day',
                value: (row) => row.day,
                show: (row) => dayInWords(row.day, { weekday: true }),
              },
              {
                key: 'drills',
                header: 'Drills',
                numeric: true,
                value: (row) => row.drills,
                show: (row) => many(row.drills),
              },
            ]}
          />
        </ScrollRegion>
      </details>
    </>
  );
}

function calendarOption(
  days: readonly { day: string; drills: number }[],
  today: string,
  { colour, text, tooltip }: ChartStyle,
) {
  const from = addDays(mondayOf(today), -7 * (WEEKS - 1));
  const shown = days.filter(({ day, drills }) => day >= from && drills > 0);
  return {
    animation: false,
    tooltip: {
      ...tooltip,
      trigger: 'item',
      formatter: ({ value }: { value: [string, number] }) =>
        `${dayInWords(value[0], { weekday: true })}: ${many(value[1])}`,
    },
    visualMap: {
      show: false,
      min: 0,
      max: largest(
        shown.map(({ drills }) => drills),
        1,
      ),
      inRange: { color: [colour('wash'), colour('accent')] },
    },
    calendar: {
      range: [from, today],
      left: 46,
      right: 12,
      top: 28,
      bottom: 6,
      cellSize: ['auto', 'auto'],
      splitLine: { show: false },
      itemStyle: { color: colour('cloth'), borderColor: colour('bench'), borderWidth: 3 },
      dayLabel: { ...text, firstDay: 1, nameMap: ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat'] },
      monthLabel: text,
      yearLabel: { show: false },
    },
    series: [
      { type: 'heatmap', coordinateSystem: 'calendar', data: shown.map(({ day, drills }) => [day, drills]) },
    ],
  };
}
