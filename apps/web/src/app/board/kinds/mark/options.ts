import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import type { MarkName, MarkSpec } from '@cuaderno/core/kinds';
import { Check, CircleAlert, CircleQuestionMark, Heart, Star, X } from 'lucide';
import type { IconNode } from 'lucide';
import { Icon } from '../../../ui/icons/icon';
import { Tip } from '../../../ui/tip/tip';
import { KindOptions } from '../kind';
import { markStyle } from './style';

const MARKS: readonly { mark: MarkName; label: string; icon: IconNode }[] = [
  { mark: 'tick', label: 'Tick', icon: Check },
  { mark: 'cross', label: 'Cross', icon: X },
  { mark: 'star', label: 'Star', icon: Star },
  { mark: 'question', label: 'Question mark', icon: CircleQuestionMark },
  { mark: 'attention', label: 'Look here', icon: CircleAlert },
  { mark: 'heart', label: 'Heart', icon: Heart },
];

/** Which mark is laid next, or those are that are chosen. */
@Component({
  selector: 'cua-mark-options',
  imports: [Icon, Tip],
  template: `
    <div class="group choices" role="group" aria-label="Mark">
      @for (choice of marks; track choice.mark) {
        <button
          type="button"
          [attr.aria-label]="choice.label"
          [cuaTip]="choice.label"
          [attr.aria-pressed]="mark() === choice.mark"
          (click)="choose(choice.mark)"
        >
          <cua-icon [of]="choice.icon" [size]="20" />
        </button>
      }
    </div>
  `,
  styleUrl: '../_options.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MarkOptions extends KindOptions<MarkSpec> {
  protected readonly marks = MARKS;
  protected readonly mark = computed(() => this.items()[0]?.mark ?? markStyle.value().mark);

  protected choose(mark: MarkName): void {
    if (this.items().length === 0) markStyle.set({ mark });
    else this.change()(() => ({ mark }));
  }
}
