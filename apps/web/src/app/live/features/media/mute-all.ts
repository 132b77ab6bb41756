import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Id } from '@cuaderno/core/id';
import { MicOff } from 'lucide';
import { Button } from '../../../ui/button/button';
import { Icon } from '../../../ui/icons/icon';
import type { LessonWith } from '../feature';
import type { MediaState } from './media-state';

/** Mutes all students, or all but the one who leads: there while any of them has the microphone on. */
@Component({
  selector: 'cua-mute-all',
  imports: [Button, Icon],
  template: `
    @if (heard().length > 0) {
      <button type="button" cuaButton (click)="state().mute('all')">
        <cua-icon [of]="icons.MicOff" [size]="18" /> Mute all students
      </button>
      @if (leads()) {
        <button type="button" cuaButton="quiet" (click)="state().mute('all-but-lead')">
          Mute all but who leads
        </button>
      }
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: var(--space-1);
      padding: 0 var(--space-1);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MuteAll {
  readonly session =
    input.required<
      LessonWith<{ readonly media: MediaState; readonly pens: { lead(): Id | null } }>
    >();

  protected readonly icons = { MicOff };
  protected readonly state = computed(() => this.session().features.media);
  /** Students whose microphone is on. */
  protected readonly heard = computed(() =>
    this.session()
      .people()
      .filter(({ id, role }) => role === 'student' && this.state().voices().get(id) === 'on'),
  );
  /** Whether who leads is one of them, and not the only one. */
  protected readonly leads = computed(
    () =>
      this.heard().length > 1 &&
      this.heard().some(({ id }) => id === this.session().features.pens.lead()),
  );
}
