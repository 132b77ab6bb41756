import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { Stretch } from '@cuaderno/core/replay';
import type { CustomSeriesRenderItem } from 'echarts';
import { Chart } from '../../ui/charts/chart';
import type { ChartOption, ChartTouch } from '../../ui/charts/chart';
import { formatLength, formatSecond } from '../../ui/time/format-time';
import { SIGNS } from '../../live/features/in-record';
import type { Happening } from '../../live/features/feature';

/** One person's row. */
export interface Lane {
  readonly id: string;
  readonly label: string;
  /** `#rrggbb` */
  readonly colour: string;
  readonly stretches: readonly Stretch[];
  /** For how long their pen was on a page, in ms. */
  readonly penDown: number;
}

/** Height of a row, and of the row of times below, in CSS px; width of the names at the left, and what is free at the right. */
const ROW = 26;
const AXIS = 24;
const NAMES = 110;
const RIGHT = 18;
/** Narrowest that a stretch is drawn, in CSS px. */
const NARROWEST = 2;

/** Who worked when, and what happened beside the pages: touching a moment goes there. */
@Component({
  selector: 'cua-lesson-timeline',
  imports: [Chart],
  template: `
    <div class="box">
      <cua-chart [option]="chart()" [height]="height()" (touched)="choose($event)" />
      <div class="now" [style.left]="nowLeft()" [style.height.px]="height() - axis"></div>
    </div>
    <details>
      <summary>
        As a table
        <span class="signs" aria-hidden="true">{{ legend }}</span>
      </summary>
      <div class="tables">
        <table>
          <caption class="unseen">
            Who wrote for how long
          </caption>
          <thead>
            <tr>
              <th scope="col">Who</th>
              <th scope="col">Pen on the page</th>
              <th scope="col">Stretches of work</th>
            </tr>
          </thead>
          <tbody>
            @for (lane of lanes(); track lane.id) {
              <tr>
                <th scope="row">
                  <bdi>{{ lane.label }}</bdi>
                </th>
                <td>{{ length(lane.penDown) }}</td>
                <td>{{ lane.stretches.length }}</td>
              </tr>
            }
          </tbody>
        </table>
        <ol>
          @for (one of happenings(); track $index) {
            <li>
              <button type="button" (click)="chosen.emit(one.at)">{{ second(one.at) }}</button>
              <bdi>{{ one.words }}</bdi>
            </li>
          } @empty {
            <li>No hand was raised, nothing was signalled, and nobody wrote in the chat.</li>
          }
        </ol>
      </div>
    </details>
  `,
  styleUrl: './lesson-timeline.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LessonTimeline {
  readonly whole = input.required<Stretch>();
  readonly lanes = input.required<readonly Lane[]>();
  readonly happenings = input.required<readonly Happening[]>();
  /** The moment that is seen, in ms since 1970. */
  readonly time = input.required<number>();
  /** A moment was touched, in ms since 1970. */
  readonly chosen = output<number>();

  protected readonly axis = AXIS;
  protected readonly legend = SIGNS.map(({ legend }) => legend).join(' ');
  protected readonly second = formatSecond;
  protected readonly length = (ms: number): string =>
    ms < 60_000 ? `${Math.round(ms / 1000)} s` : formatLength(ms);
  protected readonly height = computed(() => this.lanes().length * ROW + AXIS);
  /** As CSS has it: what is between the names and the right edge is the whole lesson. */
  protected readonly nowLeft = computed(() => {
    const { from, to } = this.whole();
    const part = to > from ? (this.time() - from) / (to - from) : 0;
    return `calc(${NAMES}px + ${part} * (100% - ${NAMES + RIGHT}px))`;
  });
  protected readonly chart = computed(() =>
    timelineOf(this.whole(), this.lanes(), this.happenings()),
  );

  protected choose({ x, width }: ChartTouch): void {
    const { from, to } = this.whole();
    const part = (x - NAMES) / Math.max(1, width - NAMES - RIGHT);
    this.chosen.emit(from + Math.max(0, Math.min(1, part)) * (to - from));
  }
}

/** A row a person with their stretches of work, and a sign where something happened. */
function timelineOf(
  whole: Stretch,
  lanes: readonly Lane[],
  happenings: readonly Happening[],
): ChartOption {
  return ({ ink, soft, line, raised, font }) => {
    const row = new Map(lanes.map(({ id }, i) => [id, i]));
    const stretch: CustomSeriesRenderItem = (_, api) => {
      const [x, y] = api.coord([api.value(1), api.value(0)]) as [number, number];
      const [right] = api.coord([api.value(2), api.value(0)]) as [number];
      const width = Math.max(NARROWEST, right - x);
      return {
        type: 'rect',
        shape: { x, y: y - 7, width, height: 14, r: Math.min(3, width / 2) },
        style: { fill: lanes[api.value(0) as number]!.colour },
      };
    };
    return {
      grid: { left: NAMES, right: RIGHT, top: 0, bottom: AXIS },
      tooltip: { renderMode: 'richText', trigger: 'item' },
      xAxis: {
        type: 'time',
        min: whole.from,
        max: whole.to,
        axisLabel: { ...font, color: soft, hideOverlap: true, formatter: '{HH}:{mm}' },
        axisLine: { lineStyle: { color: line } },
        splitLine: { show: false },
      },
      yAxis: {
        type: 'category',
        inverse: true,
        data: lanes.map(({ label }) => label),
        axisLabel: { ...font, color: ink, width: NAMES - 16, overflow: 'truncate' },
        axisLine: { show: false },
        axisTick: { show: false },
        splitLine: { show: true, lineStyle: { color: line } },
      },
      series: [
        {
          type: 'custom',
          renderItem: stretch,
          encode: { x: [1, 2], y: 0 },
          data: lanes.flatMap(({ stretches }, i) => stretches.map(({ from, to }) => [i, from, to])),
          tooltip: {
            formatter: ({ value }: { value: [number, number, number] }) =>
              `${lanes[value[0]]!.label}: ${formatSecond(value[1])}–${formatSecond(value[2])}`,
          },
        },
        {
          type: 'scatter',
          data: happenings.flatMap(({ at, by, sign: { symbol, size }, words }) => {
            const lane = row.get(by);
            return lane === undefined
              ? []
              : [{ value: [at, lane], symbol, symbolSize: size, name: words }];
          }),
          itemStyle: {
            color: ink,
            borderColor: raised,
            borderWidth: 1,
          },
          tooltip: {
            formatter: ({ name, value }: { name: string; value: [number] }) =>
              `${formatSecond(value[0])} ${name}`,
          },
        },
      ],
    };
  };
}
