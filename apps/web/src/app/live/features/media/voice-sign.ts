import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { Mic, MicOff } from 'lucide';
import { Icon } from '../../../ui/icons/icon';
import { Tip } from '../../../ui/tip/tip';
import type { Voice } from './media-state';

/** Beside a name: whether that person’s microphone is on, and whether they speak this moment. Nothing while it is off. */
@Component({
  selector: 'cua-voice-sign',
  imports: [Icon, Tip],
  template: `
    @if (sign(); as sign) {
      <span
        role="img"
        [class.speaks]="speaks()"
        [attr.aria-label]="sign.words"
        [cuaTip]="sign.words"
      >
        <cua-icon [of]="sign.icon" [size]="15" />
      </span>
    }
  `,
  styles: `
    /* Where there is nothing to show, it takes no room. */
    :host {
      display: contents;
    }
    span {
      display: inline-grid;
      place-items: center;
      padding: 2px;
      border-radius: 99px;
    }
    .speaks {
      background: var(--moss);
      color: var(--on-strong);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class VoiceSign {
  readonly voice = input<Voice>();
  readonly speaks = input(false);

  /** Who speaks isn't said in words: it changes too often to be read out. */
  protected readonly sign = computed(() => {
    const voice = this.voice();
    if (!voice) return null;
    return voice === 'on'
      ? { icon: Mic, words: 'microphone on' }
      : { icon: MicOff, words: 'microphone muted' };
  });
}
