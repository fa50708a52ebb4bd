import { useCallback } from 'react';
import { ChartBox, type ChartStyle } from '../../ui/ChartBox';

interface BurnUp {
  days: { day: string; total: number }[];
  drills: number;
  today: string;
  /** Where the line will probably meet the whole canvas; null where nothing foretells it. */
  forecast: { early: string; likely: string; late: string } | null;
}

/** Drills laid in all, day by day, against the whole canvas, and where the line is likely to go. */
export function BurnUpChart(props: BurnUp) {
  const { days, drills, today, forecast } = props;
  const option = useCallback(
    (style: ChartStyle) => burnUpOption({ days, drills, today, forecast }, style),
    [days, drills, today, forecast],
  );
  return (
    <ChartBox
      option={option}
      className="h-72 w-full"
      label="Drills laid in all, day by day, with the forecast"
    />
  );
}

const noon = (day: string) => `${day}T12:00:00`;

function burnUpOption(
  { days, drills, today, forecast }: BurnUp,
  { colour, text, axis, tooltip }: ChartStyle,
) {
  const total = days.at(-1)?.total ?? 0;
  // The whole canvas would press a young line flat, so its mark is shown only once it is near, or foretold.
  const showAll = total > drills * 0.3 || forecast !== null;
  const to = (day: string) => [
    [noon(today), total],
    [noon(day), drills],
  ];
  const guess = (day: string, type: 'solid' | 'dotted') => ({
    type: 'line',
    symbol: 'none',
    silent: true,
    tooltip: { show: false },
    data: to(day),
    lineStyle: { color: colour('edge'), width: type === 'solid' ? 2 : 1.5, type },
  });
  return {
    animation: false,
    grid: { left: 72, right: 28, top: 34, bottom: 34 },
    tooltip: {
      ...tooltip,
      valueFormatter: (value: unknown) => `${Number(value).toLocaleString('en')} laid in all`,
    },
    xAxis: { type: 'time', ...axis, splitLine: { show: false }, axisLabel: { ...text, hideOverlap: true } },
    yAxis: {
      type: 'value',
      ...axis,
      max: showAll ? drills : null,
      axisLabel: { ...text, showMaxLabel: !showAll },
    },
    series: [
      {
        type: 'line',
        step: 'end',
        symbol: 'circle',
        symbolSize: 7,
        data: days.map(({ day, total: sum }) => [noon(day), sum]),
        lineStyle: { color: colour('accent'), width: 3 },
        itemStyle: { color: colour('accent') },
        areaStyle: { color: colour('wash') },
        ...(showAll && {
          markLine: {
            silent: true,
            symbol: 'none',
            lineStyle: { color: colour('edge'), type: 'dashed' },
            label: {
              ...text,
              position: 'insideStartTop',
              formatter: `${drills.toLocaleString('en')} in all`,
            },
            data: [{ yAxis: drills }],
          },
        }),
      },
      ...(forecast
        ? [guess(forecast.early, 'dotted'), guess(forecast.likely, 'solid'), guess(forecast.late, 'dotted')]
        : []),
    ],
  };
}
