import type { Id } from '@cuaderno/core/id';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import { catchError, EMPTY, merge, retry, Subject, switchMap, timer } from 'rxjs';
import type { Observable } from 'rxjs';
import { HandoutsApi } from '../../api/handouts-api';
import { ApiError, problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import { Button } from '../../ui/button/button';
import { ProblemMessage } from '../../ui/problem/problem-message';

/** How often it is asked for slides that are being made ready, in ms. */
const ASKED = 1500;

/** One page of a file, as a picture with one's name across it. */
@Component({
  selector: 'cua-page-view',
  imports: [Button, ProblemMessage],
  template: `
    @if (address(); as src) {
      <img [src]="src" [alt]="'Page ' + page() + ' of ' + name()" draggable="false" />
    } @else if (problem(); as problem) {
      <cua-problem [of]="problem"
        ><button type="button" cuaButton (click)="show()">Try again</button></cua-problem
      >
    } @else {
      <p role="status">{{ words() }}</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      place-items: center;
      min-height: 60%;
      margin: 0 auto;
    }
    img {
      width: 100%;
      background: var(--page);
      box-shadow: var(--shadow);
    }
  `,
  host: { '(contextmenu)': '$event.preventDefault()' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PageView {
  readonly sheet = input.required<Id>();
  readonly name = input.required<string>();
  readonly page = input.required<number>();
  /** It isn't there any more. */
  readonly lost = output();
  private readonly handoutsApi = inject(HandoutsApi);
  protected readonly address = signal<string | null>(null);
  protected readonly problem = signal<ProblemDetails | null>(null);
  protected readonly words = signal('');
  private readonly place = computed(() => ({ asset: this.sheet(), page: this.page() }));
  private readonly again = new Subject<void>();

  constructor() {
    merge(toObservable(this.place), this.again)
      .pipe(
        switchMap(() => this.picture()),
        takeUntilDestroyed(),
      )
      .subscribe((bytes) =>
        this.address.set(URL.createObjectURL(new Blob([bytes.slice()], { type: 'image/jpeg' }))),
      );
    inject(DestroyRef).onDestroy(() => this.clear());
  }

  protected show(): void {
    this.again.next();
  }

  /** The page that is asked for, as soon as there is one; nothing where there won't be. */
  private picture(): Observable<Uint8Array<ArrayBuffer>> {
    this.clear();
    this.problem.set(null);
    this.words.set('The page is coming…');
    const { asset, page } = this.place();
    return this.handoutsApi.readHandoutPage(asset, page).pipe(
      retry({
        delay: (error: unknown) => {
          if (!(error instanceof ApiError && error.code === 'slides-coming')) throw error;
          this.words.set('These slides are being made ready. They appear by themselves.');
          return timer(ASKED);
        },
      }),
      catchError((error: unknown) => {
        if (error instanceof ApiError && error.code === 'not-found') this.lost.emit();
        else this.problem.set(problemOf(error));
        return EMPTY;
      }),
    );
  }

  private clear(): void {
    const address = this.address();
    if (address) URL.revokeObjectURL(address);
    this.address.set(null);
  }
}
