import type { Answer } from '@cuaderno/contract/route';
import type { findLesson } from '@cuaderno/contract/routes/lessons';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import {
  catchError,
  defer,
  EMPTY,
  firstValueFrom,
  repeat,
  Subject,
  switchMap,
  takeWhile,
  tap,
} from 'rxjs';
import type { Observable } from 'rxjs';
import { LessonsApi } from '../../api/lessons-api';
import { ApiError, problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import { whenIdle } from '../../browser/when-idle';
import { Button } from '../../ui/button/button';
import { FirstFocus } from '../../ui/forms/first-focus';
import { HandedList } from '../../materials/handing-over/handed-list';
import { LateOffers } from '../../records/late-lines/late-offers';
import { OwnLateNotice } from '../../records/late-lines/own-late-notice';
import { formatWhen, formatZone } from '../../ui/time/format-time';
import { forgetWay, rememberWay } from '../way-back/way-back';

type Entrance = Answer<typeof findLesson>;

/** How often a closed door is tried, in ms. */
const KNOCK = 3000;
/** When the lesson's code comes at the latest, in ms. */
const LATEST = 2000;

/** What is said of links that lead nowhere. */
const DEAD = new Set(['no-such-lesson', 'course-retired']);

/** A student's way in: the code, if there was no link; then a first name, and nothing else. */
@Component({
  selector: 'cua-join',
  imports: [Button, FirstFocus, HandedList, OwnLateNotice, RouterLink],
  templateUrl: './join.html',
  styleUrl: './join.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class JoinScreen {
  /** From the address, where someone came by link. */
  readonly link = input<string>();

  private readonly lessonsApi = inject(LessonsApi);
  private readonly router = inject(Router);
  private readonly code = signal('');
  protected readonly entrance = signal<Entrance | null>(null);
  protected readonly say = { when: formatWhen, zone: formatZone };
  protected readonly busy = signal(false);
  protected readonly problem = signal<ProblemDetails | null>(null);
  /** The link leads nowhere: it was mistyped, or is no longer in use. */
  protected readonly dead = signal(false);
  /** The name of somebody who waits, once they have told their tutor that they are here. */
  protected readonly said = signal('');
  private readonly late = inject(LateOffers);
  private offered = false;
  private readonly looks = new Subject<void>();

  constructor() {
    this.looks
      .pipe(
        switchMap(() => this.lookUntilOpen()),
        takeUntilDestroyed(),
      )
      .subscribe();
    effect(() => {
      if (this.link()) untracked(() => this.look());
    });
    inject(DestroyRef).onDestroy(() => this.late.rest());
    // While a name is typed, the lesson's own code comes in.
    const callOff = whenIdle(
      () =>
        void Promise.all([import('../door-screen/door'), import('../student-screen/lesson')]).catch(
          () => null,
        ),
      LATEST,
    );
    inject(DestroyRef).onDestroy(callOff);
  }

  protected find(code: string): void {
    this.code.set(code);
    this.look();
  }

  protected async enter(name: string): Promise<void> {
    this.busy.set(true);
    this.problem.set(null);
    try {
      const { state } = await firstValueFrom(this.lessonsApi.joinLesson({ by: this.by(), name }));
      await this.router.navigateByUrl(state === 'in' ? '/lesson' : '/door');
    } catch (error) {
      this.problem.set(problemOf(error));
      if (error instanceof ApiError && error.code === 'lesson-not-open') this.look();
    } finally {
      this.busy.set(false);
    }
  }

  /** Somebody waits for the lesson to open, and says so. */
  protected sayHere(name: string): void {
    this.said.set(name.trim());
    this.look();
  }

  protected look(): void {
    this.looks.next();
  }

  /** Asks again and again as long as the lesson isn't open. */
  private lookUntilOpen(): Observable<Entrance> {
    this.dead.set(false);
    const asked = defer(() =>
      this.lessonsApi.findLesson({ ...this.by(), ...(this.said() && { name: this.said() }) }),
    );
    return asked.pipe(
      tap((entrance) => this.found(entrance)),
      repeat({ delay: KNOCK }),
      takeWhile(({ open }) => !open, true),
      catchError((error: unknown) => {
        this.problem.set(problemOf(error));
        this.dead.set(error instanceof ApiError && DEAD.has(error.code));
        if (this.link() && this.dead()) forgetWay(this.link()!);
        return EMPTY;
      }),
    );
  }

  private found(entrance: Entrance): void {
    this.entrance.set(entrance);
    this.problem.set(null);
    if (this.link()) rememberWay(this.link()!);
    if (entrance.open || this.offered) return;
    // Before an open one is gone into, what belongs there goes by that.
    this.offered = true;
    void this.late.offerKept(null);
  }

  private by(): { link: string } | { code: string } {
    const link = this.link();
    return link ? { link } : { code: this.code() };
  }
}
