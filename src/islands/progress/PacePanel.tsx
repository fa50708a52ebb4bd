import { useCallback } from 'react';
import { type PaceGroup, trendInWords } from '../../core/progress/pace';
import { counted, many } from '../../core/words/numbers';
import type { ForecastView } from '../../server/progress/contract';
import { ChartBox, type ChartStyle } from '../../ui/ChartBox';
import { DataTable } from '../../ui/DataTable';
import { ScrollRegion } from '../../ui/ScrollRegion';

const began = (moment: string) =>
  new Date(moment).toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric', month: 'short' });

/** Drills an hour: sitting by sitting with the trend, and by what the sitting was like. */
export function PacePanel({ pace }: { pace: ForecastView['pace'] }) {
  const { sittings, trend, ofAll } = pace;
  const option = useCallback((style: ChartStyle) => paceOption(sittings, style), [sittings]);
  if (ofAll === null)
    return <p className="slip max-w-xl">The pace shows once a sitting has been timed at the bench.</p>;
  return (
    <>
      <p>
        <span className="big-number">{many(Math.round(ofAll))}</span> drills an hour over all sittings
        {trend !== null && `; ${trendInWords(trend, ofAll)}`}.
      </p>
      <ChartBox option={option} className="h-64 w-full" label="Drills an hour, sitting by sitting" />
      <details>
        <summary className="min-h-11 py-2 underline">The same as a table</summary>
        <ScrollRegion label="Drills an hour, sitting by sitting" className="max-h-72">
          <DataTable
            caption="Drills an hour, sitting by sitting"
            rows={[...sittings].reverse()}
            rowKey={(row) => row.startedAt}
            columns={[
              {
                key: 'when',
                header: 'Began',
                value: (row) => row.startedAt,
                show: (row) => began(row.startedAt),
              },
              {
                key: 'pace',
                header: 'Drills an hour',
                numeric: true,
                value: (row) => row.drillsAnHour,
                show: (row) => many(Math.round(row.drillsAnHour)),
              },
            ]}
          />
        </ScrollRegion>
      </details>
      <div className="mt-3 grid gap-6 md:grid-cols-3">
        <Groups
          name="By kind of work"
          groups={pace.kinds}
          of="sitting"
          few="Four sittings of a kind tell it."
        />
        <Groups
          name="By time of day"
          groups={pace.hours}
          of="sitting"
          few="Four sittings at a time of day tell it."
        />
        <Groups
          name="By bar"
          groups={pace.tips}
          of="placement"
          few="Twenty bars of a length, laid one by one at the bench, tell it."
        />
      </div>
    </>
  );
}

function Groups({ name, groups, of, few }: { name: string; groups: PaceGroup[]; of: string; few: string }) {
  return (
    <section>
      <h2>{name}</h2>
      {groups.length === 0 ? (
        <p className="text-faded">{few}</p>
      ) : (
        <DataTable
          caption={name}
          rows={groups}
          rowKey={(row) => row.name}
          columns={[
            { key: 'name', header: 'Kind', value: (row) => row.name },
            {
              key: 'pace',
              header: 'An hour',
              numeric: true,
              value: (row) => row.drillsAnHour,
              show: (row) => many(Math.round(row.drillsAnHour)),
            },
            { key: 'from', header: 'From', value: (row) => row.from, show: (row) => counted(row.from, of) },
          ]}
        />
      )}
    </section>
  );
}

function paceOption(sittings: ForecastView['pace']['sittings'], { colour, text, axis, tooltip }: ChartStyle) {
  return {
    animation: false,
    grid: { left: 64, right: 20, top: 20, bottom: 34 },
    tooltip: {
      ...tooltip,
      valueFormatter: (value: unknown) => `${many(Math.round(Number(value)))} drills an hour`,
    },
    xAxis: { type: 'time', ...axis, splitLine: { show: false }, axisLabel: { ...text, hideOverlap: true } },
    yAxis: { type: 'value', min: 0, ...axis },
    series: [
      {
        type: 'line',
        symbol: 'circle',
        symbolSize: 8,
        data: sittings.map(({ startedAt, drillsAnHour }) => [startedAt, Math.round(drillsAnHour)]),
        lineStyle: { color: colour('line'), width: 2 },
        itemStyle: { color: colour('accent') },
      },
    ],
  };
}
