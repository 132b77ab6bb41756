import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { Icon } from '../../ui/icons/icon';
import { Tip } from '../../ui/tip/tip';
import { Shortcuts } from '../shortcuts/shortcuts';
import type { Tools } from '../tool/tool';
import { WRITING_TOOLS } from './tool-buttons';

/** The tools that are left where there is only the page in the window: what one writes with, and moves the page. */
@Component({
  selector: 'cua-few-tools',
  imports: [Icon, Tip],
  template: `
    @for (kind of kinds; track kind.tool) {
      <button
        type="button"
        [attr.aria-label]="kind.label"
        [attr.aria-pressed]="tools().tool() === kind.tool"
        [attr.aria-keyshortcuts]="shortcuts.aria(kind.tool)"
        [cuaTip]="shortcuts.tip(kind.label, kind.tool)"
        [disabled]="!enabled() && kind.tool !== 'hand'"
        (click)="tools().tool.set(kind.tool)"
      >
        <cua-icon [of]="kind.icon" />
      </button>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex: none;
      padding-right: var(--space-2);
      border-right: 1px solid var(--line);
    }
    button {
      display: grid;
      place-items: center;
      min-width: 44px;
      min-height: var(--touch);
      padding: 0;
      border: 2px solid transparent;
      border-radius: var(--round);
      background: none;
      cursor: pointer;
    }
    button[aria-pressed='true'] {
      border-color: var(--ink);
      background: var(--raised);
    }
    button:disabled {
      opacity: 0.4;
    }
  `,
  host: { role: 'toolbar', 'aria-label': 'Writing tools' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FewTools {
  readonly tools = input.required<Tools>();
  /** Whether this person holds a pen. */
  readonly enabled = input(true);
  protected readonly kinds = WRITING_TOOLS;
  protected readonly shortcuts = inject(Shortcuts);
}
