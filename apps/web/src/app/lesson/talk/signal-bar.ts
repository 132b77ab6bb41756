import {
  ChangeDetectionStrategy,
  Component,
  computed,
  input,
  output,
  viewChild,
} from '@angular/core';
import type { Person, Signal } from '@cuaderno/core/features';
import { Hand, MessageSquareHeart } from 'lucide';
import { Popup } from '../../ui/popup/popup';
import { Icon } from '../../ui/icons/icon';
import { SIGNALS } from '../../live/features/talk/signals';
import { Tip } from '../../ui/tip/tip';

/** What a student says without a word: a hand, and a signal that only the tutor is told. */
@Component({
  selector: 'cua-signal-bar',
  imports: [Icon, Popup, Tip],
  template: `
    <button
      type="button"
      class="say"
      [class.up]="up()"
      [attr.aria-pressed]="up()"
      [attr.aria-label]="up() ? 'Hand is up' : 'Raise hand'"
      [cuaTip]="up() ? 'Lower your hand' : 'Raise your hand'"
      (click)="raised.emit(!up())"
    >
      <cua-icon [of]="icons.Hand" [size]="20" />
      <span class="word">{{ up() ? 'Hand is up' : 'Raise hand' }}</span>
    </button>
    <button
      type="button"
      class="say"
      [class.given]="given() !== null"
      aria-haspopup="dialog"
      [attr.aria-label]="given() ? 'Signal: ' + given()!.label : 'Signal'"
      (click)="list.toggle($event)"
    >
      <cua-icon [of]="given()?.icon ?? icons.MessageSquareHeart" [size]="20" />
      <span class="word">{{ given()?.label ?? 'Signal' }}</span>
    </button>
    <cua-popup #list label="Signals">
      <p class="who">Only your tutor sees it.</p>
      <div class="signals" role="group" aria-label="Signals">
        @for (one of signals; track one.signal) {
          <button
            type="button"
            [attr.aria-pressed]="person().signal === one.signal"
            (click)="give(one.signal)"
          >
            <cua-icon [of]="one.icon" [size]="24" /> {{ one.label }}
          </button>
        }
      </div>
    </cua-popup>
  `,
  styles: `
    @use '../../ui/theme/breakpoints';

    :host {
      display: flex;
      gap: var(--space-1);
    }
    .say {
      display: flex;
      gap: var(--space-3);
      align-items: center;
      justify-content: center;
      min-width: var(--touch);
      min-height: var(--touch);
      padding: 0 var(--space-6);
      border: 1px solid var(--line);
      border-radius: 99px;
      background: var(--raised);
      white-space: nowrap;
      cursor: pointer;
    }
    .up {
      border-color: var(--amber);
      background: var(--amber-soft);
      color: var(--amber);
      font-weight: 700;
    }
    .given {
      border-color: var(--accent);
      font-weight: 700;
    }
    .who {
      margin: 0 0 var(--space-4);
      color: var(--ink-soft);
      font-size: var(--size-m);
    }
    .signals {
      display: grid;
      grid-template-columns: repeat(4, 1fr);
      gap: var(--space-3);
    }
    .signals button {
      display: grid;
      gap: var(--space-1);
      place-items: center;
      min-width: 72px;
      min-height: 64px;
      border: 2px solid var(--line);
      border-radius: var(--round);
      background: var(--raised);
      color: inherit;
      font: inherit;
      font-size: var(--size-s);
      cursor: pointer;
    }
    .signals button[aria-pressed='true'] {
      border-color: var(--accent);
      font-weight: 700;
    }
    @media (max-width: breakpoints.$phone) {
      .signals {
        grid-template-columns: repeat(3, 1fr);
      }
      .say {
        padding: 0 var(--space-5);
      }
    }
    /* The sign alone: with words beside it the bar would take another row. */
    @media (max-width: breakpoints.$desk) {
      .say .word {
        display: none;
      }
      .say {
        padding: 0;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SignalBar {
  /** Who gives them: oneself. */
  readonly person = input.required<Pick<Person, 'hand' | 'signal'>>();
  readonly raised = output<boolean>();
  readonly signalled = output<Signal | null>();

  protected readonly icons = { Hand, MessageSquareHeart };
  protected readonly signals = SIGNALS;
  private readonly list = viewChild.required<Popup>('list');
  protected readonly up = computed(() => this.person().hand !== null);
  protected readonly given = computed(
    () => SIGNALS.find(({ signal }) => signal === this.person().signal) ?? null,
  );

  /** The same once more takes it back. */
  protected give(signal: Signal): void {
    this.signalled.emit(this.person().signal === signal ? null : signal);
    this.list().hide();
  }
}
