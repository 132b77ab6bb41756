import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { colourOfPerson } from '@cuaderno/core/ink';
import type { LessonAttended } from '../../api/shapes';
import { Button } from '../../ui/button/button';
import { Chart } from '../../ui/charts/chart';
import type { ChartOption } from '../../ui/charts/chart';
import { formatDate, formatLength } from '../../ui/time/format-time';

const MINUTE = 60_000;
/** Lessons that a chart shows at most: the last ones. */
const MOST = 26;

/** Who came to the lessons of a course, over the weeks. Students are told apart by their names. */
@Component({
  selector: 'cua-course-attendance',
  imports: [Button, Chart],
  template: `
    <section aria-labelledby="attendance">
      <div class="head">
        <h2 id="attendance">Attendance</h2>
        <button type="button" cuaButton="quiet" (click)="saved.emit()">
          Save as a table (CSV)
        </button>
      </div>
      <cua-chart [option]="chart()" [height]="200" />
      <details>
        <summary>As a table</summary>
        <div class="wide">
          <table>
            <thead>
              <tr>
                <th scope="col">Lesson</th>
                <th scope="col">Length</th>
                @for (name of names(); track name) {
                  <th scope="col">
                    <bdi>{{ name }}</bdi>
                  </th>
                }
              </tr>
            </thead>
            <tbody>
              @for (row of rows(); track row.lesson) {
                <tr>
                  <th scope="row">{{ row.day }}</th>
                  <td>{{ row.length }}</td>
                  @for (one of row.there; track $index) {
                    <td>{{ one === 0 ? '–' : length(one) }}</td>
                  }
                </tr>
              }
            </tbody>
            <tfoot>
              <tr>
                <th scope="row">Came to</th>
                <td>{{ lessons().length }}</td>
                @for (count of came(); track $index) {
                  <td>{{ count }}</td>
                }
              </tr>
            </tfoot>
          </table>
        </div>
      </details>
    </section>
  `,
  styleUrl: './statistics.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CourseAttendance {
  /** The latest first. */
  readonly lessons = input.required<readonly LessonAttended[]>();
  /** It is to be saved as a table. */
  readonly saved = output();

  protected readonly length = formatLength;
  /** In the order in which they came first. */
  protected readonly names = computed(() => [
    ...new Set(
      [...this.lessons()].reverse().flatMap(({ people }) => people.map(({ name }) => name)),
    ),
  ]);
  protected readonly rows = computed(() =>
    this.lessons().map((one) => ({
      lesson: one.lesson,
      day: formatDate(one.openedAt),
      length: formatLength(one.length),
      there: this.names().map((name) => one.people.find((p) => p.name === name)?.length ?? 0),
    })),
  );
  protected readonly came = computed(() =>
    this.names().map((_, i) => this.rows().filter(({ there }) => there[i]! > 0).length),
  );
  protected readonly chart = computed<ChartOption>(() => {
    const lessons = this.lessons().slice(0, MOST).reverse();
    const names = this.names();
    return ({ ink, soft, line, font }) => ({
      grid: { left: 48, right: 12, top: 36, bottom: 28 },
      legend: { top: 0, textStyle: { ...font, color: ink }, itemWidth: 16, itemHeight: 12 },
      tooltip: { renderMode: 'richText', trigger: 'axis' },
      xAxis: {
        type: 'category',
        data: lessons.map(({ openedAt }) => formatDate(openedAt)),
        axisLabel: { ...font, color: soft, hideOverlap: true },
        axisLine: { lineStyle: { color: line } },
        axisTick: { show: false },
      },
      yAxis: {
        type: 'value',
        name: 'minutes',
        nameTextStyle: { ...font, color: soft },
        axisLabel: { ...font, color: soft },
        splitLine: { lineStyle: { color: line } },
      },
      series: names.map((name, i) => ({
        type: 'bar',
        name,
        barMaxWidth: 22,
        itemStyle: { color: colourOfPerson(i + 1) },
        data: lessons.map(({ people }) =>
          Math.round((people.find((p) => p.name === name)?.length ?? 0) / MINUTE),
        ),
      })),
    });
  });
}
