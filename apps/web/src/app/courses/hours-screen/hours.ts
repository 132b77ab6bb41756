import { momentOf, wallTimeOf } from '@cuaderno/core/timetable';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { RouterLink } from '@angular/router';
import { catchError, EMPTY, firstValueFrom, map, merge, Subject, switchMap } from 'rxjs';
import type { Observable } from 'rxjs';
import { LIST } from '../../ui/list/list';
import { HoursApi } from '../../api/hours-api';
import { problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import type { HourRow } from '../../api/timetable';
import { inAddress } from '../../ui/address/address';
import { Button } from '../../ui/button/button';
import { DateField } from '../../ui/dates/date-field';
import { Chart } from '../../ui/charts/chart';
import type { ChartOption } from '../../ui/charts/chart';
import { download } from '../../ui/download/download';
import { formatDate, formatLength, formatSpan, formatZone } from '../../ui/time/format-time';
import { inShownZone, shownZone } from '../../ui/time/shown-zone';
import { CorrectionForm } from './correction-form';
import { totalsOf } from './totals';
import type { TotalsBy } from './totals';
import { ProblemMessage } from '../../ui/problem/problem-message';

const BY: readonly { readonly by: TotalsBy; readonly label: string }[] = [
  { by: 'month', label: 'Month' },
  { by: 'course', label: 'Course' },
  { by: 'student', label: 'Student' },
];

/** A month as fields for months have it, if it is one. */
function month(text: string): string | null {
  return /^\d{4}-(?:0[1-9]|1[0-2])$/.test(text) ? text : null;
}

/** How long lessons really were: what a tutor is paid by. */
@Component({
  selector: 'cua-hours',
  imports: [
    DateField,
    Button,
    Chart,
    CorrectionForm,
    FormsModule,
    ProblemMessage,
    RouterLink,
    LIST,
  ],
  templateUrl: './hours.html',
  styleUrl: './hours.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class HoursScreen {
  private readonly hoursApi = inject(HoursApi);
  /** Months as fields for months have them; the last one included. */
  protected readonly from = inAddress('from', month, monthBack(2));
  protected readonly to = inAddress('to', month, monthBack(0));
  protected readonly rows = signal<readonly HourRow[] | null>(null);
  protected readonly by = inAddress<TotalsBy>(
    'by',
    (text) => BY.find(({ by }) => by === text)?.by ?? null,
    'month',
  );
  protected readonly course = inAddress<string | null>('course', (text) => text, null);
  protected readonly correcting = signal<HourRow | null>(null);
  protected readonly problem = signal<ProblemDetails | null>(null);
  protected readonly ways = BY;
  protected readonly say = {
    date: formatDate,
    length: (minutes: number): string => formatLength(minutes * 60_000),
    span: formatSpan,
    zone: formatZone,
  };

  /** Those with lessons in these months: two may have one name. */
  protected readonly courses = computed(() =>
    [...new Map((this.rows() ?? []).map((row) => [row.course, row.courseName] as const))]
      .map(([id, name]) => ({ id, name }))
      .sort((a, b) => a.name.localeCompare(b.name)),
  );
  /** The course that is chosen, as long as it has lessons in these months. */
  protected readonly only = computed(
    () => this.courses().find(({ id }) => id === this.course())?.id ?? null,
  );
  protected readonly choices = computed(() => [{ id: null, name: 'all' }, ...this.courses()]);
  protected readonly shown = computed(() =>
    (this.rows() ?? []).filter(({ course }) => !this.only() || course === this.only()),
  );
  protected readonly totals = computed(() => totalsOf(this.shown(), this.by()));
  protected readonly sum = computed(() =>
    this.shown().reduce((sum, { minutes }) => sum + minutes, 0),
  );
  protected readonly chart = computed<ChartOption>(() => {
    const totals = this.totals();
    return ({ ink, soft, line, font }) => ({
      textStyle: { ...font, color: ink },
      grid: { left: 8, right: 48, top: 8, bottom: 8 },
      xAxis: {
        type: 'value',
        axisLabel: {
          ...font,
          color: soft,
          formatter: '{value} h',
        },
        splitLine: { lineStyle: { color: line } },
      },
      yAxis: {
        type: 'category',
        inverse: true,
        data: totals.map(({ label }) => label),
        axisLabel: { ...font, color: ink, width: 190, overflow: 'truncate' },
        axisLine: { lineStyle: { color: line } },
        axisTick: { show: false },
      },
      series: [
        {
          type: 'bar',
          barMaxWidth: 26,
          itemStyle: { color: '#0072b2' },
          data: totals.map(({ minutes }) => minutes / 60),
          label: {
            show: true,
            position: 'right',
            ...font,
            color: ink,
            formatter: ({ value }: { value: number }) => formatLength(value * 3_600_000),
          },
        },
      ],
    });
  });

  /** From the beginning of the first month to the end of the last, in ms since 1970. */
  private readonly span = computed(
    () => {
      const start = beginning(this.from());
      return { from: start, to: Math.max(start, beginning(addMonths(this.to(), 1))) };
    },
    { equal: (a, b) => a.from === b.from && a.to === b.to },
  );
  private readonly again = new Subject<void>();

  constructor() {
    merge(toObservable(this.span), this.again)
      .pipe(
        switchMap(() => this.lessons()),
        takeUntilDestroyed(),
      )
      .subscribe((rows) => this.rows.set(rows));
  }

  protected load(): void {
    this.again.next();
  }

  private lessons(): Observable<readonly HourRow[]> {
    this.problem.set(null);
    return this.hoursApi.listHours(this.span()).pipe(
      map(({ rows }) => rows),
      catchError((error: unknown) => {
        this.problem.set(problemOf(error));
        return EMPTY;
      }),
    );
  }

  /** @param form a table, or a calendar of the lessons as they were held */
  protected async save(form: 'csv' | 'ics'): Promise<void> {
    this.problem.set(null);
    try {
      const query = { ...this.span(), course: this.only() || undefined };
      const { blob, name } = await firstValueFrom(
        form === 'csv'
          ? this.hoursApi.downloadHoursTable({ ...query, ...inShownZone() })
          : this.hoursApi.downloadHoursCalendar(query),
      );
      download(blob, name);
    } catch (error) {
      this.problem.set(problemOf(error));
    }
  }
}

/** The month so many months ago, as `2026-11`. */
function monthBack(months: number): string {
  return addMonths(wallTimeOf(Date.now(), shownZone()).slice(0, 7), -months);
}

function addMonths(month: string, months: number): string {
  const [year, of] = month.split('-').map(Number);
  return new Date(Date.UTC(year!, of! - 1 + months, 1)).toISOString().slice(0, 7);
}

/** When a month begins by the clock of this window, in ms since 1970. */
function beginning(month: string): number {
  return momentOf(`${month}-01T00:00`, shownZone());
}
