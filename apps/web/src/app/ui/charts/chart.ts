import type { ElementRef } from '@angular/core';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  effect,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import type { EChartsType } from 'echarts/core';

/** How the page around a chart looks, as ECharts has it. */
export interface ChartTheme {
  readonly ink: string;
  readonly soft: string;
  readonly line: string;
  readonly font: { readonly fontFamily: string; readonly fontSize: number };
}

/** What ECharts draws, said once it is known how the page around looks. */
export type ChartOption = (looks: ChartTheme) => object;

/** A chart as wide as there is room. What it shows stands beside it as a table: it is for the eye alone. */
@Component({
  selector: 'cua-chart',
  template: `<div #chart [style.height.px]="height()" aria-hidden="true"></div>`,
  styles: `
    :host {
      display: block;
      min-width: 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Chart {
  readonly option = input.required<ChartOption>();
  /** In CSS px. */
  readonly height = input(220);

  private readonly element = viewChild.required<ElementRef<HTMLElement>>('chart');
  private readonly chart = signal<EChartsType | null>(null);
  private readonly resizing = new ResizeObserver(() => this.chart()?.resize());
  private gone = false;

  constructor() {
    afterNextRender(() => void this.start());
    effect(() => {
      const [chart, option] = [this.chart(), this.option()];
      this.height();
      if (!chart) return;
      untracked(() => {
        chart.resize();
        chart.setOption({ animation: false, ...option(this.looks()) }, true);
      });
    });
    inject(DestroyRef).onDestroy(() => {
      this.gone = true;
      this.resizing.disconnect();
      this.chart()?.dispose();
    });
  }

  private async start(): Promise<void> {
    const { init } = await import('./chart-engine');
    if (this.gone) return;
    const element = this.element().nativeElement;
    this.chart.set(init(element));
    this.resizing.observe(element);
  }

  private looks(): ChartTheme {
    const style = getComputedStyle(this.element().nativeElement);
    const of = (name: string): string => style.getPropertyValue(name).trim();
    return {
      ink: of('--ink'),
      soft: of('--ink-soft'),
      line: of('--line'),
      font: { fontFamily: style.fontFamily, fontSize: 13 },
    };
  }
}
