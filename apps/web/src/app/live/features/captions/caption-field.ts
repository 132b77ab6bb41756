import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  input,
  signal,
  viewChild,
} from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { FormControl, ReactiveFormsModule } from '@angular/forms';
import { MAX_CAPTION, splitCaption } from '@cuaderno/core/features';
import { oneLine } from '@cuaderno/core/text';
import type { Id } from '@cuaderno/core/id';
import { CornerDownLeft, Pencil } from 'lucide';
import { throttleTime } from 'rxjs';
import { Button } from '../../../ui/button/button';
import { Icon } from '../../../ui/icons/icon';
import { Tip } from '../../../ui/tip/tip';
import type { CaptionsState } from './captions-state';

/** How often it is told how far a line is typed, in ms. */
const TOLD = 200;

/** Where captions are typed: each line goes to all with Enter, and is seen as it is typed. */
@Component({
  selector: 'cua-caption-field',
  imports: [Button, Icon, ReactiveFormsModule, Tip],
  template: `
    <form (submit)="$event.preventDefault(); done()">
      <input
        #field
        type="text"
        autocomplete="off"
        [attr.aria-label]="corrected() ? 'Correct the last line' : 'Type what is said'"
        [placeholder]="
          corrected() ? 'Correct the last line' : 'You type the captions: what is said, then Enter'
        "
        [attr.maxlength]="corrected() ? longest : null"
        [formControl]="typed"
        (keydown.arrowup)="correctByKey($event)"
        (keydown.escape)="leave($event)"
      />
      <button type="submit" cuaButton>
        <cua-icon [of]="icons.CornerDownLeft" [size]="18" />
        <span class="word">{{ corrected() ? 'Correct' : 'Send' }}</span>
      </button>
      @if (last() && !corrected()) {
        <button
          type="button"
          cuaButton="quiet"
          aria-label="Correct the last line"
          cuaTip="Correct the last line (arrow up)"
          (click)="correct()"
        >
          <cua-icon [of]="icons.Pencil" [size]="18" />
        </button>
      }
    </form>
    @if (state().unconfirmed().length > 0) {
      <p role="status">
        {{ waiting() }}
        <button type="button" cuaButton="quiet" (click)="state().sendAgain()">Send again</button>
      </p>
    }
  `,
  styles: `
    @use '../../../ui/theme/breakpoints';

    :host {
      display: block;
      padding: var(--space-2) var(--space-5);
      border-top: 1px solid var(--line);
      background: var(--panel);
    }
    form {
      display: flex;
      gap: var(--space-3);
    }
    input {
      flex: 1;
      min-width: 0;
      min-height: var(--touch);
      padding: 0 var(--space-6);
      border: 1px solid var(--line);
      border-radius: 8px;
      background: var(--raised);
      color: var(--ink);
      font: inherit;
      font-size: var(--size-l);
    }
    p {
      margin: var(--space-1) 0 0;
      color: var(--ink-soft);
      font-size: var(--size-m);
    }
    @media (max-width: breakpoints.$narrow) {
      .word {
        display: none;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CaptionField {
  readonly state = input.required<CaptionsState>();

  protected readonly icons = { CornerDownLeft, Pencil };
  protected readonly longest = MAX_CAPTION;
  protected readonly typed = new FormControl('', { nonNullable: true });
  /** The line that is being corrected. */
  protected readonly corrected = signal<Id | null>(null);
  /** Somebody else's lines aren't this one's to correct. */
  protected readonly last = computed(() => {
    const { lines, writer } = this.state();
    return (
      lines()
        .filter(({ by }) => by === writer())
        .at(-1) ?? null
    );
  });
  protected readonly waiting = computed(() => {
    const count = this.state().unconfirmed().length;
    return count === 1 ? 'One line is on its way.' : `${count} lines are on their way.`;
  });
  private readonly field = viewChild.required<ElementRef<HTMLInputElement>>('field');

  constructor() {
    this.typed.valueChanges
      .pipe(takeUntilDestroyed())
      .subscribe((typed) => this.corrected() ?? this.splitOff(typed));
    this.typed.valueChanges
      .pipe(throttleTime(TOLD, undefined, { leading: true, trailing: true }), takeUntilDestroyed())
      // What is being corrected isn't said anew.
      .subscribe(() => this.corrected() ?? this.state().tell(this.typed.value));
  }

  protected done(): void {
    const text = oneLine(this.typed.value);
    if (text !== '') this.state().write(text, this.corrected());
    this.corrected.set(null);
    this.typed.setValue('', { emitEvent: false });
    this.field().nativeElement.focus();
  }

  protected correct(): void {
    const last = this.last();
    if (!last) return;
    this.corrected.set(last.id);
    this.typed.setValue(last.text, { emitEvent: false });
    this.field().nativeElement.focus();
  }

  /** With nothing typed, the arrow goes back to the last line. */
  protected correctByKey(event: Event): void {
    if (this.typed.value !== '') return;
    event.preventDefault();
    this.correct();
  }

  protected leave(event: Event): void {
    if (!this.corrected()) return;
    event.preventDefault();
    this.corrected.set(null);
    this.typed.setValue('', { emitEvent: false });
  }

  /** Anyone who types on and on sends a line whenever one is full. */
  private splitOff(typed: string): void {
    const split = splitCaption(typed);
    if (!split) return;
    this.state().write(oneLine(split.line));
    this.typed.setValue(split.rest, { emitEvent: false });
  }
}
