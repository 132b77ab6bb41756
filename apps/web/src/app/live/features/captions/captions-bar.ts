import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { nameOf } from '@cuaderno/core/people';
import { AArrowDown, AArrowUp, Captions, CaptionsOff } from 'lucide';
import { Button } from '../../../ui/button/button';
import { Icon } from '../../../ui/icons/icon';
import { Tip } from '../../../ui/tip/tip';
import type { LessonWith } from '../feature';
import type { CaptionsState } from './captions-state';
import { CaptionField } from './caption-field';
import { CaptionLines } from './caption-lines';
import { CaptionSize } from './caption-size';

/** What is said in the lesson, as somebody types it: below the page, in every window, as large as the reader likes. */
@Component({
  selector: 'cua-captions-bar',
  imports: [Button, CaptionField, CaptionLines, Icon, Tip],
  template: `
    @if (writer(); as name) {
      <section class="bar" aria-label="Captions">
        @if (!size.hidden()) {
          <cua-caption-lines [lines]="state().lines()" [typing]="state().typing()" />
        }
        <div class="buttons" [cuaTip]="'Captions, typed by ' + name">
          @if (size.hidden()) {
            <button type="button" class="show" (click)="size.hide(false)">
              <cua-icon [of]="icons.Captions" [size]="20" /> Show captions
            </button>
          } @else {
            <button
              type="button"
              aria-label="Smaller captions"
              cuaTip="Smaller captions"
              [disabled]="size.isSmallest()"
              (click)="size.change(-1)"
            >
              <cua-icon [of]="icons.AArrowDown" [size]="20" />
            </button>
            <button
              type="button"
              aria-label="Larger captions"
              cuaTip="Larger captions"
              [disabled]="size.isLargest()"
              (click)="size.change(1)"
            >
              <cua-icon [of]="icons.AArrowUp" [size]="20" />
            </button>
            <button
              type="button"
              aria-label="Hide captions"
              cuaTip="Hide captions, on this screen only"
              (click)="size.hide(true)"
            >
              <cua-icon [of]="icons.CaptionsOff" [size]="20" />
            </button>
          }
        </div>
      </section>
    }
    @if (isMine()) {
      @defer (on immediate) {
        <cua-caption-field [state]="state()" />
      }
    } @else if (state().unconfirmed().length > 0) {
      <p class="lost" role="alert">
        You don’t type the captions any more. Not taken: “{{ lost() }}”
        <button type="button" cuaButton (click)="state().drop()">All right</button>
      </p>
    }
  `,
  styleUrl: './captions-bar.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CaptionsBar {
  readonly session = input.required<LessonWith<{ readonly captions: CaptionsState }>>();

  protected readonly icons = { AArrowDown, AArrowUp, Captions, CaptionsOff };
  protected readonly size = inject(CaptionSize);
  protected readonly state = computed(() => this.session().features.captions);
  /** What who types them is called; `null` while nobody in the lesson does. */
  protected readonly writer = computed(() => {
    const id = this.state().writer();
    const person = this.session()
      .people()
      .find((one) => one.id === id);
    return person ? nameOf(person) : null;
  });
  protected readonly isMine = computed(() => {
    const writer = this.state().writer();
    return writer !== null && writer === this.session().me();
  });
  protected readonly lost = computed(() =>
    this.state()
      .unconfirmed()
      .map(({ text }) => text)
      .join(' '),
  );
}
