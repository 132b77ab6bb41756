import { momentOf, wallTimeOf } from '@cuaderno/core/timetable';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { NonNullableFormBuilder } from '@angular/forms';
import { InputTextModule } from 'primeng/inputtext';
import { firstValueFrom } from 'rxjs';
import * as z from 'zod';
import { LIST } from '../../ui/list/list';
import { Attempt } from '../../api/attempt';
import { RecordLinksApi } from '../../api/record-links-api';
import type { RecordLink } from '../../api/shared';
import { copyText } from '../../browser/copy-text';
import { Button } from '../../ui/button/button';
import { DateField } from '../../ui/dates/date-field';
import { Confirm } from '../../ui/confirm/confirm';
import { fits, isWritten } from '../../ui/forms/fits';
import { FORM } from '../../ui/forms/form';
import { DIALOG } from '../../ui/popup/dialog';
import { formatDay, formatWhen } from '../../ui/time/format-time';
import { shownZone } from '../../ui/time/shown-zone';
import { ProblemMessage } from '../../ui/problem/problem-message';
import { EmptyState } from '../../ui/empty/empty-state';

/** How long a link lasts unless it is said otherwise, in days, and at most. */
const DAYS = 30;
const MOST_DAYS = 365;

const DONE = { opened: 'opened', record: 'looked at a lesson', downloaded: 'saved a PDF' } as const;

/** Links by which students and parents see a record, or all of a course: made, copied, watched and withdrawn. */
@Component({
  selector: 'cua-links-dialog',
  imports: [
    DateField,
    Button,
    Confirm,
    DIALOG,
    FORM,
    InputTextModule,
    ProblemMessage,
    LIST,
    EmptyState,
  ],
  templateUrl: './links-dialog.html',
  styleUrl: './links-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LinksDialog {
  readonly course = input.required<string>();
  /** The record; `null` where it is about all of the course. */
  readonly lesson = input<string | null>(null);
  /** Names of students, for links on which only one of them is named. */
  readonly students = input<readonly string[]>([]);
  readonly closed = output();
  private readonly recordLinksApi = inject(RecordLinksApi);

  protected readonly links = signal<readonly RecordLink[] | null>(null);
  protected readonly attempt = new Attempt();
  protected readonly copied = signal<string | null>(null);
  protected readonly asking = signal<string | null>(null);
  protected readonly done = DONE;
  protected readonly say = { day: formatDay, when: formatWhen };

  protected readonly form = inject(NonNullableFormBuilder).group({
    forWhom: ['', isWritten('Say for whom the link is.')],
    email: ['', fits(z.union([z.literal(''), z.email('That isn’t an e-mail address.')]))],
    all: false,
    may: 'view' as RecordLink['may'],
    /** Whose names are shown. */
    names: 'nobody' as 'nobody' | 'one' | 'everyone',
    student: [{ value: '', disabled: true }, isWritten('Choose whose name is shown.')],
    day: [isoDay(DAYS), isWritten('Choose a day.')],
  });
  private readonly values = toSignal(this.form.valueChanges, { initialValue: this.form.value });
  protected readonly may = computed(() => this.values().may);
  protected readonly email = computed(() => this.values().email?.trim() ?? '');
  protected readonly first = isoDay(1);
  protected readonly last = isoDay(MOST_DAYS);
  protected readonly going = computed(() =>
    (this.links() ?? []).filter(({ state }) => state === 'open'),
  );
  protected readonly ended = computed(() =>
    (this.links() ?? []).filter(({ state }) => state !== 'open'),
  );

  constructor() {
    const { names, student } = this.form.controls;
    // Whose it is matters only where one is named.
    effect(() => {
      if ((this.values().names ?? names.value) === 'one') student.enable({ emitEvent: false });
      else student.disable({ emitEvent: false });
    });
    queueMicrotask(() => void this.load());
  }

  protected async make(): Promise<void> {
    const { forWhom, email, all, may, names, student, day } = this.form.getRawValue();
    await this.attempt.make(async () => {
      const link = await firstValueFrom(
        this.recordLinksApi.createRecordLink(this.course(), {
          lesson: all ? null : this.lesson(),
          forWhom: forWhom.trim(),
          email: email.trim() || null,
          may,
          names: names === 'everyone' ? 'all' : 'own',
          student: names === 'one' ? student : null,
          until: endOf(day),
          zone: shownZone(),
        }),
      );
      this.links.update((links) => [link, ...(links ?? [])]);
      this.form.controls.forWhom.reset();
      this.form.controls.email.reset();
      await this.copy(link);
    });
  }

  protected async copy(link: RecordLink): Promise<void> {
    if (await copyText(this.address(link))) this.copied.set(link.id);
  }

  protected address({ token }: RecordLink): string {
    return `${location.origin}/shared/${token}`;
  }

  protected async withdraw(link: RecordLink): Promise<void> {
    await this.attempt.make(async () => {
      await firstValueFrom(this.recordLinksApi.withdrawRecordLink(link.id));
      this.asking.set(null);
      await this.load();
    });
  }

  protected async load(): Promise<void> {
    await this.attempt.make(async () => {
      const { links } = await firstValueFrom(
        this.recordLinksApi.listRecordLinks(this.course(), { lesson: this.lesson() ?? undefined }),
      );
      this.links.set(links);
    });
  }
}

/** The day so many days from now, as a field for dates has it. */
function isoDay(days: number): string {
  return wallTimeOf(Date.now() + days * 86_400_000, shownZone()).slice(0, 10);
}

/** The last moment of a day by the clock of this window, in ms since 1970. */
function endOf(day: string): number {
  return momentOf(`${day}T23:59`, shownZone()) + 59_999;
}
