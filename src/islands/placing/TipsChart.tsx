import { useEffect, useRef } from 'react';
import type { TipWorth } from '../../core/placing/tipsWorth';

/** Placements by the widest tip. */
export function TipsChart({ worth, owned }: { worth: readonly TipWorth[]; owned: number }) {
  const holder = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const element = holder.current;
    if (!element) return;
    let gone = false;
    let cleanUp = () => {};
    void import('../../ui/charts').then(({ drawIn }) => {
      if (!gone) cleanUp = drawIn(element, () => tipsOption(worth, owned));
    });
    return () => {
      gone = true;
      cleanUp();
    };
  }, [worth, owned]);
  return (
    <div
      ref={holder}
      className="h-44 w-full shrink-0"
      role="img"
      aria-label="Placements by the widest tip; the table below has the numbers"
    />
  );
}

function tipsOption(worth: readonly TipWorth[], owned: number) {
  const style = getComputedStyle(document.documentElement);
  const colour = (name: string) => style.getPropertyValue(`--c-${name}`).trim();
  const text = { color: colour('faded'), fontFamily: 'Atkinson Hyperlegible Next Variable', fontSize: 14 };
  const axis = {
    axisLabel: text,
    axisLine: { lineStyle: { color: colour('edge') } },
    splitLine: { lineStyle: { color: colour('line') } },
  };
  return {
    animation: false,
    grid: { left: 58, right: 12, top: 24, bottom: 28 },
    tooltip: {
      trigger: 'axis',
      renderMode: 'richText',
      backgroundColor: colour('paper'),
      borderColor: colour('edge'),
      textStyle: { ...text, color: colour('ink') },
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
