import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import type { Person } from '@cuaderno/core/features';
import type { Trust } from '@cuaderno/core/permissions';
import { PenOff } from 'lucide';
import { Shortcuts } from '../../board/shortcuts/shortcuts';
import { Button } from '../../ui/button/button';
import { Icon } from '../../ui/icons/icon';
import { Tip } from '../../ui/tip/tip';

/** Takes all pens back with one touch. It is at one place whatever stands open beside the page. */
@Component({
  selector: 'cua-pens-back',
  imports: [Button, Icon, Tip],
  template: `
    <button
      type="button"
      cuaButton
      aria-label="Take all pens back"
      [class.closing]="areOut()"
      [disabled]="!areOut()"
      [cuaTip]="shortcuts.tip('Everyone watches from now on', 'pens-back')"
      [attr.aria-keyshortcuts]="shortcuts.aria('pens-back')"
      (click)="taken.emit()"
    >
      <cua-icon [of]="icons.PenOff" />
      @if (!short()) {
        Take all pens back
      }
    </button>
  `,
  styles: `
    :host {
      display: grid;
    }
    button {
      padding: 0 var(--space-2);
      white-space: nowrap;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PensBack {
  readonly people = input.required<readonly Person[]>();
  /** What the class has: who comes late has it too. */
  readonly late = input<Trust>('view');
  /** By its sign alone. */
  readonly short = input(false);
  readonly taken = output();

  protected readonly shortcuts = inject(Shortcuts);
  protected readonly icons = { PenOff };
  /** Whether anyone has a pen, or would have one who comes late. */
  protected readonly areOut = computed(
    () =>
      this.late() !== 'view' ||
      this.people().some(({ role, trust }) => role === 'student' && trust !== 'view'),
  );
}
