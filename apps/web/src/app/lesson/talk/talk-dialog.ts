import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  ElementRef,
  inject,
  input,
  output,
} from '@angular/core';
import { whyNot } from '@cuaderno/core/permissions';
import type { ChatTo } from '@cuaderno/core/features';
import { Keyboard, X } from 'lucide';
import { Button } from '../../ui/button/button';
import { Icon } from '../../ui/icons/icon';
import { Tip } from '../../ui/tip/tip';
import type { BoardSession } from '../../live/board-session';
import { ClassStrip } from '../people/class-strip';
import { ChatPanel } from './chat-panel';

/** Why a watcher writes nothing. */
const WATCHES = 'You watch this lesson: you read what is written to all.';

/** Who is here and what is written, for a student: beside the page, or below it on a phone. */
@Component({
  selector: 'cua-talk-dialog',
  imports: [Button, ChatPanel, ClassStrip, Icon, Tip],
  template: `
    @if (session(); as live) {
      <div class="head">
        <h2>Class</h2>
        <button
          type="button"
          cuaButton="quiet"
          class="keys"
          aria-label="Keyboard shortcuts"
          cuaTip="Keyboard shortcuts"
          (click)="keys.emit()"
        >
          <cua-icon [of]="icons.Keyboard" [size]="20" />
        </button>
        <button type="button" cuaButton="quiet" aria-label="Close" (click)="closed.emit()">
          <cua-icon [of]="icons.X" [size]="20" />
        </button>
      </div>
      <cua-class-strip
        [people]="live.people()"
        [me]="live.me()"
        [lead]="live.features.pens.lead()"
      />
      <cua-chat-panel
        [lines]="live.features.talk.chat()"
        [people]="live.people()"
        [me]="live.me()!"
        [notAll]="not().all"
        [notTutor]="not().tutor"
        [write]="write()"
      />
    }
  `,
  styles: `
    @use '../../ui/theme/breakpoints';

    :host {
      display: flex;
      flex-direction: column;
      gap: var(--space-4);
      width: 280px;
      min-height: 0;
      padding: var(--space-4) var(--space-5);
      border-left: 1px solid var(--line);
      background: var(--panel);
    }
    .head {
      display: flex;
      align-items: center;
      justify-content: space-between;
    }
    /* Where there is no keyboard, as a rule, there is nothing to list. */
    @media (pointer: coarse) {
      .keys {
        display: none;
      }
    }
    h2 {
      flex: 1;
      margin: 0;
      font-size: var(--size-l);
    }
    .cua-button {
      width: var(--touch);
      padding: 0;
    }
    cua-chat-panel {
      flex: 1;
    }
    @media (max-width: breakpoints.$narrow) {
      :host {
        order: -1;
        width: auto;
        height: 44dvh;
        border-bottom: 1px solid var(--line);
        border-left: 0;
      }
    }
  `,
  host: {
    role: 'region',
    'aria-label': 'Class',
    tabindex: '-1',
    '(keydown.escape)': 'closed.emit()',
  },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TalkDialog {
  readonly session = input.required<BoardSession>();
  readonly closed = output();
  /** The list of keys is asked for. */
  readonly keys = output();

  protected readonly icons = { Keyboard, X };

  constructor() {
    const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    const before = document.activeElement as HTMLElement | null;
    // On a touch screen a field would bring up the keyboard, over the half of the page that is left.
    const field = matchMedia('(pointer: fine)').matches ? 'textarea, input' : null;
    afterNextRender(() => {
      const into = field ? host.querySelector<HTMLElement>(field) : null;
      (into ?? host).focus();
    });
    inject(DestroyRef).onDestroy(() => {
      const at = document.activeElement;
      if (!at || at === document.body || host.contains(at)) before?.focus();
    });
  }

  protected readonly not = computed(() => {
    if (this.session().role() === 'watcher') return { all: WATCHES, tutor: WATCHES };
    const applies = this.session().applies()(null);
    return { all: whyNot('chatAll', applies), tutor: whyNot('chatTutor', applies) };
  });
  protected readonly write = computed(() => {
    const { features } = this.session();
    return (to: ChatTo, text: string): boolean => features.talk.write(to, text);
  });
}
