import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { CheckboxModule } from 'primeng/checkbox';
import { FormsModule } from '@angular/forms';
import { Pause, Play } from 'lucide';
import { LIST } from '../../ui/list/list';
import { Icon } from '../../ui/icons/icon';
import { formatPlace, formatSecond } from '../../ui/time/format-time';
import { SPEEDS } from './player';
import type { Player } from './player';

/** How far an arrow key moves, in ms of the replay. */
const STEP = 1000;

/** Under the page while a lesson is seen again: play, where it stands, how fast it goes. */
@Component({
  selector: 'cua-replay-bar',
  imports: [CheckboxModule, FormsModule, Icon, LIST],
  template: `
    @let here = player();
    <button
      type="button"
      class="play"
      [attr.aria-label]="here.isPlaying() ? 'Pause' : 'Play'"
      (click)="here.toggle()"
    >
      <cua-icon [of]="here.isPlaying() ? icons.Pause : icons.Play" [size]="22" />
    </button>
    <span class="clock">{{ clock() }}</span>
    <input
      #slider
      type="range"
      aria-label="Moment of the lesson"
      min="0"
      [step]="step"
      [max]="max()"
      [value]="here.at()"
      [attr.aria-valuetext]="clock()"
      (input)="here.goTo(slider.valueAsNumber)"
    />
    <span class="place">{{ place() }}</span>
    <label
      >Speed
      <p-select
        ariaLabel="Speed"
        appendTo="body"
        optionLabel="label"
        optionValue="speed"
        [options]="speeds"
        [ngModel]="here.speed()"
        (ngModelChange)="here.speed.set($event)"
      />
    </label>
    <label>
      <p-checkbox
        [binary]="true"
        [ngModel]="here.skipsIdle()"
        (ngModelChange)="here.setSkipsIdle($event)"
      />
      Skip pauses
    </label>
  `,
  styles: `
    @use '../../ui/theme/breakpoints';

    :host {
      display: flex;
      align-items: center;
      gap: var(--space-6);
      min-height: 56px;
      padding: var(--space-2) var(--space-7);
      border-top: 1px solid var(--line);
      background: var(--panel);
    }
    .play {
      display: grid;
      flex: none;
      width: var(--touch);
      height: var(--touch);
      border: 0;
      border-radius: 50%;
      background: var(--ink);
      color: var(--ground);
      place-items: center;
      cursor: pointer;
    }
    input[type='range'] {
      flex: 1;
      min-width: 80px;
      height: var(--touch);
    }
    .clock,
    .place {
      font-variant-numeric: tabular-nums;
      white-space: nowrap;
    }
    .place {
      color: var(--ink-soft);
    }
    label {
      display: flex;
      align-items: center;
      gap: var(--space-4);
      white-space: nowrap;
    }
    @media (max-width: breakpoints.$narrow) {
      :host {
        flex-wrap: wrap;
        gap: var(--space-2) var(--space-6);
        padding: var(--space-3) var(--space-6);
      }
      input[type='range'] {
        flex-basis: 100%;
        order: -1;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ReplayBar {
  readonly player = input.required<Player>();
  protected readonly icons = { Play, Pause };
  protected readonly speeds = SPEEDS.map((speed) => ({
    speed,
    label: `${speed === 0.5 ? '½' : speed} ×`,
  }));
  protected readonly step = STEP;
  /** In whole steps, or the last of them would end before the replay does. */
  protected readonly max = computed(() => Math.ceil(this.player().length() / STEP) * STEP);
  protected readonly clock = computed(() => formatSecond(this.player().time()));
  protected readonly place = computed(() => {
    const { at, length } = this.player();
    return `${formatPlace(at() / 1000)} / ${formatPlace(length() / 1000)}`;
  });
}
