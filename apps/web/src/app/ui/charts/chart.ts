import type { ElementRef } from '@angular/core';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import type { ECharts, EChartsCoreOption } from 'echarts/core';
import { NgxEchartsDirective, provideEchartsCore } from 'ngx-echarts';

/** How the page around a chart looks, as ECharts has it. */
export interface ChartTheme {
  readonly ink: string;
  readonly soft: string;
  readonly line: string;
  readonly raised: string;
  readonly font: { readonly fontFamily: string; readonly fontSize: number };
}

/** What ECharts draws, said once it is known how the page around looks. */
export type ChartOption = (looks: ChartTheme) => EChartsCoreOption;

/** Where a chart was touched, in CSS px from its left edge, and how wide it is. */
export interface ChartTouch {
  readonly x: number;
  readonly width: number;
}

/** A chart as wide as there is room. What it shows stands beside it as a table: it is for the eye alone. */
@Component({
  selector: 'cua-chart',
  imports: [NgxEchartsDirective],
  providers: [provideEchartsCore({ echarts: () => import('./chart-engine') })],
  template: `
    <div #box aria-hidden="true" [style.height.px]="height()">
      @if (drawn(); as options) {
        <div echarts class="chart" [options]="options" (chartInit)="hearTouches($event)"></div>
      }
    </div>
  `,
  styles: `
    :host {
      display: block;
      min-width: 0;
    }
    .chart {
      height: 100%;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Chart {
  readonly option = input.required<ChartOption>();
  /** In CSS px. */
  readonly height = input(220);
  readonly touched = output<ChartTouch>();

  private readonly box = viewChild.required<ElementRef<HTMLElement>>('box');
  private readonly isThere = signal(false);
  protected readonly drawn = computed(() => {
    const option = this.option();
    return this.isThere()
      ? { animation: false, ...option(themeOf(this.box().nativeElement)) }
      : null;
  });

  constructor() {
    afterNextRender(() => this.isThere.set(true));
  }

  protected hearTouches(chart: ECharts): void {
    chart
      .getZr()
      .on('click', ({ offsetX: x }) => this.touched.emit({ x, width: chart.getWidth() }));
  }
}

function themeOf(element: HTMLElement): ChartTheme {
  const style = getComputedStyle(element);
  const of = (name: string): string => style.getPropertyValue(name).trim();
  return {
    ink: of('--ink'),
    soft: of('--ink-soft'),
    line: of('--line'),
    raised: of('--raised'),
    font: { fontFamily: style.fontFamily, fontSize: 13 },
  };
}
