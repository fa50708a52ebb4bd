import { useEffect, useRef, useState } from 'react';
import { Notice } from './Notice';

/** A chart that is drawn anew with its size and with the theme. @param option of the chart library, from the colours of the moment */
export function ChartBox({
  option,
  label,
  className,
}: {
  option: (style: ChartStyle) => Record<string, unknown>;
  label: string;
  className: string;
}) {
  const holder = useRef<HTMLDivElement>(null);
  const [missing, setMissing] = useState(false);
  useEffect(() => {
    const element = holder.current;
    if (!element) return;
    let gone = false;
    let cleanUp = () => {};
    import('./charts').then(
      ({ drawIn }) => {
        if (!gone) cleanUp = drawIn(element, () => option(chartStyle()));
      },
      () => !gone && setMissing(true),
    );
    return () => {
      gone = true;
      cleanUp();
    };
  }, [option]);
  if (missing)
    return (
      <Notice kind="hint">The drawing of this chart has not arrived. Load the page again to see it.</Notice>
    );
  return <div ref={holder} className={className} role="img" aria-label={label} />;
}

/** What all charts look like in the theme of the moment. */
export interface ChartStyle {
  colour: (name: string) => string;
  text: { color: string; fontFamily: string; fontSize: number };
  axis: object;
  tooltip: object;
}

function chartStyle(): ChartStyle {
  const style = getComputedStyle(document.documentElement);
  const colour = (name: string) => style.getPropertyValue(`--c-${name}`).trim();
  const text = { color: colour('faded'), fontFamily: 'Atkinson Hyperlegible Next Variable', fontSize: 15 };
  return {
    colour,
    text,
    axis: {
      axisLabel: text,
      axisLine: { lineStyle: { color: colour('edge') } },
      splitLine: { lineStyle: { color: colour('line') } },
    },
    tooltip: {
      trigger: 'axis',
      renderMode: 'richText',
      backgroundColor: colour('paper'),
      borderColor: colour('edge'),
      textStyle: { ...text, color: colour('ink') },
    },
  };
}
