/*
 * The parts of the chart library that are used, by name, so that the build leaves the others out. Imported when a chart
 * is drawn: `await import('../../ui/charts')`.
 */
import { BarChart, HeatmapChart, LineChart } from 'echarts/charts';
import {
  CalendarComponent,
  GridComponent,
  LegendComponent,
  MarkLineComponent,
  TooltipComponent,
  VisualMapComponent,
} from 'echarts/components';
import { init, use } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';

use([
  BarChart,
  HeatmapChart,
  LineChart,
  CalendarComponent,
  GridComponent,
  LegendComponent,
  TooltipComponent,
  MarkLineComponent,
  VisualMapComponent,
  CanvasRenderer,
]);

/**
 * Draws a chart into an element, anew when its size or the theme changes.
 * @returns takes it away
 */
export function drawIn(element: HTMLElement, option: () => Record<string, unknown>): () => void {
  const chart = init(element, undefined, { renderer: 'canvas' });
  const draw = () => chart.setOption(option(), true);
  draw();
  const observer = new ResizeObserver(() => chart.resize());
  observer.observe(element);
  window.addEventListener('oculent-theme', draw);
  return () => {
    window.removeEventListener('oculent-theme', draw);
    observer.disconnect();
    chart.dispose();
  };
}
