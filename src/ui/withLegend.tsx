import { type ComponentType, useMemo } from 'react';
import type { LegendLine } from '../core/canvas/legend';
import { legendFromText } from '../core/canvas/legendText';

/** A page's component that gets its colour list as the short text that pages hold. */
export function withLegend<Props extends { legend: LegendLine[] }>(Page: ComponentType<Props>) {
  return function WithLegend({ legend: text, ...rest }: Omit<Props, 'legend'> & { legend: string }) {
    const legend = useMemo(() => legendFromText(text), [text]);
    return <Page {...({ ...rest, legend } as unknown as Props)} />;
  };
}
