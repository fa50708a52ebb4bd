import { useCallback } from 'react';
import type { TipWorth } from '../../core/placing/tipsWorth';
import { ChartBox, type ChartStyle } from '../../ui/ChartBox';

/** Placements by the widest tip. */
export function TipsChart({ worth, owned }: { worth: readonly TipWorth[]; owned: number }) {
  const option = useCallback((style: ChartStyle) => tipsOption(worth, owned, style), [worth, owned]);
  return (
    <ChartBox
      option={option}
      className="h-44 w-full shrink-0"
      label="Placements by the widest tip; the table below has the numbers"
    />
  );
}

function tipsOption(worth: readonly TipWorth[], owned: number, { colour, text, axis, tooltip }: ChartStyle) {
  return {
    animation: false,
    grid: { left: 58, right: 12, top: 24, bottom: 28 },
    tooltip: {
      ...tooltip,
      valueFormatter: (value: unknown) => `${Number(value).toLocaleString('en')} placements`,
    },
    xAxis: {
      type: 'category',
      ...axis,
      splitLine: { show: false },
      data: worth.map(({ tip }) => (tip === 1 ? 'single' : String(tip))),
    },
    yAxis: { type: 'value', ...axis, splitNumber: 3 },
    series: [
      {
        type: 'line',
        symbol: 'circle',
        data: worth.map(({ tip, placements }) => ({
          value: placements,
          symbolSize: tip === owned ? 13 : 6,
          ...(tip === owned && {
            label: { show: true, position: 'top', formatter: 'yours', ...text, color: colour('ink') },
          }),
        })),
        lineStyle: { color: colour('accent'), width: 3 },
        itemStyle: { color: colour('accent') },
      },
    ],
  };
}
