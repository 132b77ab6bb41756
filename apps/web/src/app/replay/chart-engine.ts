/* Only what our charts need of ECharts; loaded when the first of them is shown. */
import { CustomChart, ScatterChart } from 'echarts/charts';
import { GridComponent, TooltipComponent } from 'echarts/components';
import { init, use } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';

use([CustomChart, ScatterChart, GridComponent, TooltipComponent, CanvasRenderer]);

export { init };
