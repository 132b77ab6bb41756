import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { Mic, MicOff } from 'lucide';
import { Icon } from '../../../ui/icons/icon';
import { Tip } from '../../../ui/tip/tip';
import type { LessonWith } from '../feature';
import type { MediaState } from './media-state';

/** One's own microphone: one touch switches it on, the next mutes it. */
@Component({
  selector: 'cua-microphone-switch',
  imports: [Icon, Tip],
  template: `
    @if (mayTalk()) {
      <button
        type="button"
        role="switch"
        aria-label="Microphone"
        [class.on]="isOn()"
        [class.speaks]="speaks()"
        [attr.aria-checked]="isOn()"
        [attr.aria-busy]="state().microphone.isOpening()"
        [cuaTip]="isOn() ? 'Mute your microphone' : 'Switch your microphone on'"
        (click)="toggle()"
      >
        <cua-icon [of]="isOn() ? icons.Mic : icons.MicOff" [size]="20" />
      </button>
    }
  `,
  styles: `
    button {
      display: grid;
      place-items: center;
      width: var(--touch);
      height: var(--touch);
      padding: 0;
      border: 1px solid var(--line);
      border-radius: 99px;
      background: var(--raised);
      color: inherit;
      cursor: pointer;
    }
    .on {
      border-color: var(--moss);
      background: var(--moss);
      color: var(--on-strong);
    }
    /* A second line in it while one is heard: seen by those who can't tell the colours, too. */
    .speaks {
      outline: 2px solid var(--on-strong);
      outline-offset: -6px;
    }
    [aria-busy='true'] {
      opacity: 0.6;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MicrophoneSwitch {
  readonly session = input.required<LessonWith<{ readonly media: MediaState }>>();

  protected readonly icons = { Mic, MicOff };
  protected readonly state = computed(() => this.session().features.media);
  protected readonly isOn = computed(() => this.state().own() === 'on');
  protected readonly speaks = computed(
    () =>
      this.isOn() &&
      this.state()
        .speaking()
        .has(this.session().me() ?? ''),
  );
  /** Who watches listens. */
  protected readonly mayTalk = computed(() => {
    const mine = this.session()
      .people()
      .find(({ id }) => id === this.session().me());
    return mine !== undefined && mine.role !== 'watcher';
  });

  protected toggle(): void {
    void this.state().toggle();
  }
}
