import { useCallback } from 'react';
import { ChartBox, type ChartStyle } from '../../ui/ChartBox';

/** Drills laid in all, day by day, against the whole canvas. */
export function BurnUpChart({ days, drills }: { days: { day: string; total: number }[]; drills: number }) {
  const option = useCallback((style: ChartStyle) => burnUpOption(days, drills, style), [days, drills]);
  return <ChartBox option={option} className="h-72 w-full" label="Drills laid in all, day by day" />;
}

function burnUpOption(
  days: { day: string; total: number }[],
  drills: number,
  { colour, text, axis, tooltip }: ChartStyle,
) {
  const atMost = days.at(-1)?.total ?? 0;
  // The whole canvas would press a young line flat, so its mark is shown only once it is near.
  const nearTheEnd = atMost > drills * 0.3;
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
      max: nearTheEnd ? drills : null,
      axisLabel: { ...text, showMaxLabel: !nearTheEnd },
    },
    series: [
      {
        type: 'line',
        step: 'end',
        symbol: 'circle',
        symbolSize: 7,
        data: days.map(({ day, total }) => [`${day}T12:00:00`, total]),
        lineStyle: { color: colour('accent'), width: 3 },
        itemStyle: { color: colour('accent') },
        areaStyle: { color: colour('wash') },
        ...(nearTheEnd && {
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
    ],
  };
}
