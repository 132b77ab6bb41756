import { ChangeDetectionStrategy, Component, computed, input, model } from '@angular/core';
import { Tip } from '../../ui/tip/tip';
import type { FingerUse } from '../stage/finger-use';

/**
 * Says what one finger does where a pen has been used, and changes it: fingers move the page while the pen is in use,
 * and write again when it has been away for a while. What was chosen holds in this browser from then on.
 */
@Component({
  selector: 'cua-finger-switch',
  imports: [Tip],
  template: `
    <button
      type="button"
      role="switch"
      [attr.aria-checked]="writes()"
      [cuaTip]="
        writes()
          ? 'One finger writes. Press to move the page with it.'
          : 'One finger moves the page, the pen writes. Press to write with fingers, too.'
      "
      (click)="use.set(writes() ? 'move' : 'write')"
    >
      <span class="track"><span class="knob"></span></span>
      Fingers write
    </button>
  `,
  styles: `
    button {
      display: flex;
      align-items: center;
      gap: var(--space-4);
      min-height: var(--touch);
      padding: 0 var(--space-5);
      border: 0;
      border-radius: var(--round);
      background: none;
      white-space: nowrap;
      cursor: pointer;
    }
    .track {
      display: flex;
      width: 34px;
      height: 20px;
      padding: var(--space-1);
      border: 2px solid var(--ink-soft);
      border-radius: 10px;
    }
    .knob {
      width: 12px;
      height: 12px;
      border-radius: 6px;
      background: var(--ink-soft);
    }
    [aria-checked='true'] .track {
      justify-content: flex-end;
      border-color: var(--moss);
      background: var(--moss);
    }
    [aria-checked='true'] .knob {
      background: var(--on-strong);
    }
    @media (forced-colors: active) {
      .knob {
        background: CanvasText;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FingerSwitch {
  readonly penInUse = input.required<boolean>();
  readonly use = model.required<FingerUse>();
  protected readonly writes = computed(() =>
    this.use() === 'auto' ? !this.penInUse() : this.use() === 'write',
  );
}
