import { useCallback, useMemo } from 'react';
import { type LegendLine, ofLine } from '../../core/canvas/legend';
import { chanceInWords } from '../../core/checkin/chance';
import { goodLeft } from '../../core/kitup/potNow';
import type { RunningOut } from '../../core/progress/runningOut';
import { dayInWords } from '../../core/words/calendar';
import { counted, many } from '../../core/words/numbers';
import type { KitupView } from '../../server/kitup/contract';
import type { ProgressView } from '../../server/progress/contract';
import { ChartBox, type ChartStyle } from '../../ui/ChartBox';
import { Chip } from '../../ui/Chip';
import { DataTable } from '../../ui/DataTable';
import { ScrollRegion } from '../../ui/ScrollRegion';
import { useAnswer } from '../writing/useAnswer';
import { colourColumn } from './colourColumn';

type Shape = 'square' | 'round';
/** So many colours are drawn; the table has all. */
const DRAWN = 14;

/** Colours that may run out, early enough to write to the seller. */
export function RunningOutList({
  canvasId,
  colours,
  legend,
  shape,
}: {
  canvasId: string;
  colours: readonly RunningOut[];
  legend: LegendLine[];
  shape: Shape;
}) {
  if (colours.length === 0) return null;
  return (
    <section
      aria-label="May run out"
      className="slip border-l-4 border-alarm !py-3"
      data-testid="running-out"
    >
      <h2>{counted(colours.length, 'colour')} may run out</h2>
      <ul className="mt-1 flex flex-col divide-y divide-line">
        {colours.slice(0, 6).map((each) => {
          const line = ofLine(legend, each.line);
          if (!line) return null;
          return (
            <li key={each.line} className="flex items-start gap-3 py-1.5">
              <Chip line={line} shape={shape} size={32} />
              <span className="min-w-0">
                <span translate="no" className="number font-semibold">
                  {line.code}
                </span>
                : {chanceInWords(each.chance).toLowerCase()}. {many(each.left)} left to lay, about{' '}
                {many(each.goodLeft)} good ones left
                {each.section !== null && `; it would show in section ${many(each.section)}`}
                {each.day !== null && `, about ${dayInWords(each.day, { year: false })}`}.
                {each.urgent && ' Write to the seller now.'}
              </span>
            </li>
          );
        })}
      </ul>
      {colours.length > 6 && <p>and {many(colours.length - 6)} more, in the table of colours</p>}
      <a className="underline" href={`/canvas/${canvasId}/checkin/request`}>
        Ask the seller, or take it from the stash
      </a>
    </section>
  );
}

interface Row {
  line: number;
  left: number;
  drills: number;
  here: number;
}

/** What is left to lay of each colour, beside what lies in its pots and bags. */
export function ColoursPanel({
  canvasId,
  colours,
  legend,
  shape,
}: {
  canvasId: string;
  colours: NonNullable<ProgressView['colours']>;
  legend: LegendLine[];
  shape: Shape;
}) {
  const { answer: kit } = useAnswer<KitupView>(`/api/canvases/${canvasId}/kitup`, ['pots', 'bags', 'trash']);
  const rows = useMemo(
    (): Row[] =>
      colours
        .map(({ line, left, drills }) => {
          const stored = kit?.amounts[line] ?? 0;
          const here = goodLeft({ stored, laid: drills - left, trashShare: kit?.trashShare ?? 0 });
          return { line, left, drills, here };
        })
        .sort((a, b) => b.left - a.left),
    [colours, kit],
  );
  const option = useCallback(
    (style: ChartStyle) => coloursOption(rows.slice(0, DRAWN), legend, style),
    [rows, legend],
  );
  return (
    <>
      <h2>Left to lay, and left in the pots</h2>
      {kit && (
        <ChartBox
          option={option}
          className="h-80 w-full"
          label="Drills left to lay of each colour beside those left in its pots"
        />
      )}
      <ScrollRegion label="Left per colour" className="max-h-[30rem]">
        <DataTable
          caption="Left per colour"
          rows={rows}
          rowKey={(row) => String(row.line)}
          columns={[
            colourColumn(legend, shape),
            {
              key: 'left',
              header: 'Left',
              numeric: true,
              value: (row) => row.left,
              show: (row) => (row.left === 0 && row.drills > 0 ? 'all laid ✓' : many(row.left)),
            },
            {
              key: 'all',
              header: 'Of',
              numeric: true,
              value: (row) => row.drills,
              show: (row) => many(row.drills),
            },
            {
              key: 'here',
              header: 'Good ones in pots and bags',
              numeric: true,
              value: (row) => row.here,
              show: (row) => (kit ? `about ${many(row.here)}` : '…'),
            },
          ]}
        />
      </ScrollRegion>
    </>
  );
}

function coloursOption(
  rows: readonly Row[],
  legend: LegendLine[],
  { colour, text, axis, tooltip }: ChartStyle,
) {
  return {
    animation: false,
    grid: { left: 60, right: 12, top: 34, bottom: 62 },
    legend: { top: 0, left: 50, textStyle: text },
    tooltip: { ...tooltip, valueFormatter: (value: unknown) => many(Number(value)) },
    xAxis: {
      type: 'category',
      ...axis,
      data: rows.map(({ line }) => ofLine(legend, line)?.code ?? ''),
      axisLabel: { ...text, rotate: 45 },
    },
    yAxis: { type: 'value', ...axis },
    series: [
      {
        name: 'Left to lay',
        type: 'bar',
        data: rows.map(({ left }) => left),
        itemStyle: { color: colour('accent') },
      },
      {
        name: 'Good ones in pots and bags',
        type: 'bar',
        data: rows.map(({ here }) => here),
        itemStyle: { color: colour('edge') },
      },
    ],
  };
}
