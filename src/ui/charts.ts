/*
 * The parts of the chart library that are used, by name, so that the build leaves the others out. Imported when a chart
 * is drawn: `await import('../../ui/charts')`.
 */
import { LineChart } from 'echarts/charts';
import { GridComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
import { init, use } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';

use([LineChart, GridComponent, TooltipComponent, MarkLineComponent, CanvasRenderer]);

export { init };
