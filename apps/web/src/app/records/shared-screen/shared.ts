import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  ElementRef,
  inject,
  Injector,
  input,
  signal,
  untracked,
} from '@angular/core';
import { Router } from '@angular/router';
import {
  catchError,
  EMPTY,
  firstValueFrom,
  lastValueFrom,
  repeat,
  Subscription,
  switchMap,
  takeWhile,
  timer,
} from 'rxjs';
import { untilAborted } from '../../api/api';
import { SharedRecordsApi } from '../../api/shared-records-api';
import { ApiError, problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import type { SharedList, SharedRecord } from '../../api/shared';
import { Button } from '../../ui/button/button';
import { download } from '../../ui/download/download';
import { formatClock, formatDay, formatLength, formatZone } from '../../ui/time/format-time';
import { inShownZone } from '../../ui/time/shown-zone';
import { ProblemMessage } from '../../ui/problem/problem-message';
import { EmptyState } from '../../ui/empty/empty-state';

/** How often it is asked whether the link is still open, in ms: withdrawn, its pages go from the screen, too. */
const ASK_EVERY = 5_000;

/** What a student or parent sees by a link: records, without an account, on a phone as on a computer. */
@Component({
  selector: 'cua-shared',
  imports: [Button, ProblemMessage, EmptyState],
  templateUrl: './shared.html',
  styleUrl: './shared.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SharedScreen {
  /** From the address. */
  readonly token = input.required<string>();
  readonly lesson = input<string | undefined>(undefined);
  private readonly sharedRecordsApi = inject(SharedRecordsApi);
  private readonly router = inject(Router);

  protected readonly list = signal<SharedList | null>(null);
  protected readonly record = signal<SharedRecord | null>(null);
  protected readonly problem = signal<ProblemDetails | null>(null);
  /** The link opens nothing any more: nothing of what it opened is shown. */
  protected readonly shut = signal<ProblemDetails | null>(null);
  protected readonly making = signal<AbortController | null>(null);
  protected readonly say = {
    clock: formatClock,
    day: formatDay,
    length: formatLength,
    zone: formatZone,
  };
  protected readonly pages = computed(() =>
    (this.record()?.pages ?? []).map((page, i) => ({
      ...page,
      number: i + 1,
      address: `/api/shared/${this.token()}/records/${this.record()!.lesson}/pages/${i + 1}`,
    })),
  );
  protected readonly others = computed(() => {
    const count = this.record()?.others ?? 0;
    return count === 0 ? '' : count === 1 ? 'and one other student' : `and ${count} other students`;
  });
  private watching = Subscription.EMPTY;
  /** What one leaves by a button; `null` where one came by the link, and nothing has the focus yet. */
  private left: { readonly lesson: string | null } | null = null;
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly injector = inject(Injector);

  constructor() {
    effect(() => {
      this.token();
      untracked(() => void this.load());
    });
    effect(() => {
      const [list, lesson] = [this.list(), this.lesson()];
      if (!list) return;
      const only = list.records.length === 1 && !list.all ? list.records[0]!.lesson : undefined;
      untracked(() => void this.open(lesson ?? only));
    });
    inject(DestroyRef).onDestroy(() => {
      this.watching.unsubscribe();
      this.making()?.abort();
    });
  }

  protected async load(): Promise<void> {
    this.problem.set(null);
    try {
      this.list.set(await firstValueFrom(this.sharedRecordsApi.listSharedRecords(this.token())));
      this.watch();
    } catch (error) {
      this.fail(error);
    }
  }

  protected choose(lesson: string | null): void {
    this.left = { lesson: this.record()?.lesson ?? null };
    void this.router.navigate(['/shared', this.token()], { queryParams: { lesson } });
  }

  protected async save(): Promise<void> {
    const abort = new AbortController();
    this.making.set(abort);
    this.problem.set(null);
    try {
      const params = { token: this.token(), lesson: this.record()!.lesson };
      const { blob, name } = await lastValueFrom(
        this.sharedRecordsApi
          .downloadSharedPdf(params.token, params.lesson, inShownZone())
          .pipe(untilAborted(abort.signal)),
      );
      download(blob, name);
    } catch (error) {
      if (!abort.signal.aborted) this.fail(error);
    } finally {
      this.making.set(null);
    }
  }

  private async open(lesson: string | undefined): Promise<void> {
    if (!lesson) {
      this.record.set(null);
      this.land();
      return;
    }
    if (this.record()?.lesson === lesson) return;
    try {
      this.record.set(
        await firstValueFrom(this.sharedRecordsApi.readSharedRecord(this.token(), lesson)),
      );
      this.land();
    } catch (error) {
      this.fail(error);
    }
  }

  /** Where one has gone to, the focus goes, too: to the lesson's day, or back to the lesson in the list. */
  private land(): void {
    const { left } = this;
    this.left = null;
    if (!left) return;
    afterNextRender(
      () => {
        const back = left.lesson && !this.record() ? `[data-lesson="${left.lesson}"]` : 'h1';
        this.host.querySelector<HTMLElement>(back)?.focus();
      },
      { injector: this.injector },
    );
  }

  private watch(): void {
    this.watching.unsubscribe();
    this.watching = timer(ASK_EVERY)
      .pipe(
        switchMap(() => this.sharedRecordsApi.readSharedState(this.token())),
        catchError((error: unknown) => {
          // A line that is away is none of its business: what is here stays.
          if (error instanceof ApiError && error.status >= 400) this.fail(error);
          return EMPTY;
        }),
        repeat(),
        takeWhile(() => !this.shut()),
      )
      .subscribe();
  }

  private fail(error: unknown): void {
    const gone =
      error instanceof ApiError &&
      ['no-such-link', 'link-withdrawn', 'link-over'].includes(error.code);
    if (!gone) return this.problem.set(problemOf(error));
    this.shut.set(error.problem);
    this.record.set(null);
    this.list.set(null);
    this.watching.unsubscribe();
  }
}
