import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Id } from '@cuaderno/core/id';
import type { LessonStatistics } from '@cuaderno/core/replay';
import { Chart } from '../../ui/charts/chart';
import type { ChartOption } from '../../ui/charts/chart';
import { formatClock, formatShort } from '../../ui/time/format-time';
import { EmptyState } from '../../ui/empty/empty-state';

const MINUTE = 60_000;
/** Height of a page's bar, and of what stands below all of them, in CSS px. */
const BAR = 30;
const BELOW = 46;

/** Somebody who was there. */
export interface Counted {
  readonly id: Id;
  readonly label: string;
  /** `#rrggbb` */
  readonly colour: string;
}

/** What there is to count in a lesson: how long it was at each page, who wrote when, and what else each did. */
@Component({
  selector: 'cua-statistics-panel',
  imports: [Chart, EmptyState],
  templateUrl: './statistics-panel.html',
  styleUrl: './statistics.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StatisticsPanel {
  readonly statistics = input.required<LessonStatistics>();
  /** In order of arrival. */
  readonly people = input.required<readonly Counted[]>();
  /** What each page is called. */
  readonly pageNames = input.required<ReadonlyMap<Id, string>>();
  /** When the lesson was opened, in ms since 1970. */
  readonly openedAt = input.required<number>();

  protected readonly short = formatShort;
  protected readonly pages = computed(
    () =>
      this.statistics().pages?.map(({ page, length }) => ({
        page,
        length,
        name: this.pageNames().get(page) ?? 'a page that was removed',
      })) ?? null,
  );
  protected readonly rows = computed(() => {
    const known = new Map(this.statistics().people.map((person) => [person.id, person]));
    return this.people().flatMap((person) => {
      const statistics = known.get(person.id);
      if (!statistics) return [];
      const penDown = statistics.writing.reduce((sum, one) => sum + one, 0);
      return [{ ...person, ...statistics, penDown }];
    });
  });
  /** When each step began. */
  protected readonly steps = computed(() => {
    const { step, people } = this.statistics();
    const count = people[0]?.writing.length ?? 0;
    return Array.from({ length: count }, (_, i) => formatClock(this.openedAt() + i * step));
  });
  protected readonly wrote = computed(() => this.rows().some(({ penDown }) => penDown > 0));
  protected readonly pagesHeight = computed(() => (this.pages()?.length ?? 0) * BAR + BELOW);

  protected readonly pagesChart = computed<ChartOption>(() => {
    const pages = this.pages() ?? [];
    return ({ ink, soft, line, font }) => ({
      grid: { left: 150, right: 30, top: 4, bottom: BELOW - 6 },
      tooltip: { renderMode: 'richText', trigger: 'item' },
      xAxis: {
        type: 'value',
        name: 'minutes',
        nameLocation: 'middle',
        nameGap: 26,
        nameTextStyle: { ...font, color: soft },
        axisLabel: { ...font, color: soft },
        splitLine: { lineStyle: { color: line } },
      },
      yAxis: {
        type: 'category',
        inverse: true,
        data: pages.map(({ name }) => name),
        axisLabel: { ...font, color: ink, width: 134, overflow: 'truncate' },
        axisLine: { lineStyle: { color: line } },
        axisTick: { show: false },
      },
      series: [
        {
          type: 'bar',
          barMaxWidth: 18,
          itemStyle: { color: '#33608f' },
          data: pages.map(({ length }) => Math.round((length / MINUTE) * 10) / 10),
        },
      ],
    });
  });

  protected readonly writingChart = computed<ChartOption>(() => {
    const [rows, steps] = [this.rows(), this.steps()];
    return ({ ink, soft, line, font }) => ({
      grid: { left: 60, right: 12, top: 36, bottom: 28 },
      legend: { top: 0, textStyle: { ...font, color: ink }, itemWidth: 16, itemHeight: 12 },
      tooltip: { renderMode: 'richText', trigger: 'axis' },
      xAxis: {
        type: 'category',
        data: steps,
        axisLabel: { ...font, color: soft, hideOverlap: true },
        axisLine: { lineStyle: { color: line } },
        axisTick: { show: false },
      },
      yAxis: {
        type: 'value',
        name: 'seconds',
        nameTextStyle: { ...font, color: soft },
        axisLabel: { ...font, color: soft },
        splitLine: { lineStyle: { color: line } },
      },
      series: rows.map(({ label, colour, writing }) => ({
        type: 'bar',
        stack: 'writing',
        name: label,
        barMaxWidth: 36,
        itemStyle: { color: colour },
        data: writing.map((ms) => Math.round(ms / 100) / 10),
      })),
    });
  });
}
