import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { ButtonModule } from 'primeng/button';
import { InputTextModule } from 'primeng/inputtext';
import { SelectModule } from 'primeng/select';
import { firstValueFrom } from 'rxjs';
import { RecordLinksApi } from '../../api/record-links-api';
import { problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import type { RecordLink } from '../../api/shared';
import { copyText } from '../../browser/copy-text';
import { DIALOG } from '../../ui/popup/dialog';
import { formatDay, formatWhen } from '../../ui/time/format-time';

/** How long a link lasts unless it is said otherwise, in days, and at most. */
const DAYS = 30;
const MOST_DAYS = 365;

const DONE = { opened: 'opened', record: 'looked at a lesson', downloaded: 'saved a PDF' } as const;

/** Links by which students and parents see a record, or all of a course: made, copied, watched and withdrawn. */
@Component({
  selector: 'cua-links-dialog',
  imports: [ButtonModule, DIALOG, FormsModule, InputTextModule, SelectModule],
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
  protected readonly problem = signal<ProblemDetails | null>(null);
  protected readonly busy = signal(false);
  protected readonly copied = signal<string | null>(null);
  protected readonly asking = signal<string | null>(null);
  protected readonly done = DONE;
  protected readonly say = { day: formatDay, when: formatWhen };

  protected readonly forWhom = signal('');
  protected readonly email = signal('');
  protected readonly all = signal(false);
  protected readonly may = signal<'view' | 'download'>('view');
  /** Whose names are shown. */
  protected readonly names = signal<'nobody' | 'one' | 'everyone'>('nobody');
  protected readonly student = signal<string | null>(null);
  protected readonly day = signal(isoDay(DAYS));
  protected readonly first = isoDay(1);
  protected readonly last = isoDay(MOST_DAYS);
  protected readonly ready = computed(
    () =>
      this.forWhom().trim() !== '' &&
      this.day() !== '' &&
      (this.names() !== 'one' || this.student() !== null),
  );
  protected readonly going = computed(() =>
    (this.links() ?? []).filter(({ state }) => state === 'open'),
  );
  protected readonly ended = computed(() =>
    (this.links() ?? []).filter(({ state }) => state !== 'open'),
  );

  constructor() {
    queueMicrotask(() => void this.load());
  }

  protected async make(): Promise<void> {
    await this.try(async () => {
      const link = await firstValueFrom(
        this.recordLinksApi.createRecordLink(this.course(), {
          lesson: this.all() ? null : this.lesson(),
          forWhom: this.forWhom().trim(),
          email: this.email().trim() || null,
          may: this.may(),
          names: this.names() === 'everyone' ? 'all' : 'own',
          student: this.names() === 'one' ? this.student() : null,
          until: endOf(this.day()),
          zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
        }),
      );
      this.links.update((links) => [link, ...(links ?? [])]);
      this.forWhom.set('');
      this.email.set('');
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
    await this.try(async () => {
      await firstValueFrom(this.recordLinksApi.withdrawRecordLink(link.id));
      this.asking.set(null);
      await this.load();
    });
  }

  protected async load(): Promise<void> {
    await this.try(async () => {
      const { links } = await firstValueFrom(
        this.recordLinksApi.listRecordLinks(this.course(), { lesson: this.lesson() ?? undefined }),
      );
      this.links.set(links);
    });
  }

  private async try(what: () => Promise<void>): Promise<void> {
    this.busy.set(true);
    this.problem.set(null);
    try {
      await what();
    } catch (error) {
      this.problem.set(problemOf(error));
    } finally {
      this.busy.set(false);
    }
  }
}

/** The day so many days from now, as a field for dates has it. */
function isoDay(days: number): string {
  const day = new Date();
  day.setDate(day.getDate() + days);
  const two = (n: number): string => String(n).padStart(2, '0');
  return `${day.getFullYear()}-${two(day.getMonth() + 1)}-${two(day.getDate())}`;
}

/** The last moment of a day by this machine's clock, in ms since 1970. */
function endOf(day: string): number {
  return new Date(`${day}T23:59:59.999`).getTime();
}
