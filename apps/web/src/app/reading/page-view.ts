import { readHandoutPage } from '@cuaderno/contract/routes/handouts';
import type { Id } from '@cuaderno/core';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import { firstValueFrom } from 'rxjs';
import { Api } from '../api/api';
import { ApiError, problemOf } from '../api/problem';
import type { Problem } from '../api/problem';

/** How often it is asked for slides that are being made ready, in ms. */
const ASKED = 1500;

/** One page of a file, as a picture with one's name across it. */
@Component({
  selector: 'cua-page-view',
  template: `
    @if (address(); as src) {
      <img [src]="src" [alt]="'Page ' + page() + ' of ' + name()" draggable="false" />
    } @else if (problem(); as problem) {
      <p class="trouble" role="alert">
        <strong>{{ problem.title }}</strong> {{ problem.detail }}
        <button type="button" class="act" (click)="show()">Try again</button>
      </p>
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
  private readonly api = inject(Api);
  protected readonly address = signal<string | null>(null);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly words = signal('');
  private round = 0;

  constructor() {
    effect(() => {
      this.sheet();
      this.page();
      untracked(() => void this.show());
    });
    inject(DestroyRef).onDestroy(() => this.clear());
  }

  protected async show(): Promise<void> {
    this.clear();
    this.problem.set(null);
    this.words.set('The page is coming…');
    const round = ++this.round;
    while (round === this.round) {
      try {
        const bytes = await firstValueFrom(
          this.api.call(readHandoutPage, { params: { asset: this.sheet(), page: this.page() } }),
        );
        if (round !== this.round) return;
        this.address.set(URL.createObjectURL(new Blob([bytes.slice()], { type: 'image/jpeg' })));
        return;
      } catch (error) {
        if (round !== this.round) return;
        const code = error instanceof ApiError ? error.code : '';
        if (code === 'not-found') return this.lost.emit();
        if (code !== 'slides-coming') return this.problem.set(problemOf(error));
        this.words.set('These slides are being made ready. They appear by themselves.');
        await new Promise((next) => setTimeout(next, ASKED));
      }
    }
  }

  private clear(): void {
    this.round++;
    const address = this.address();
    if (address) URL.revokeObjectURL(address);
    this.address.set(null);
  }
}
