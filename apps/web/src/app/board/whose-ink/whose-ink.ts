import { ChangeDetectionStrategy, Component, computed, input, model } from '@angular/core';
import type { Id } from '@cuaderno/core/id';
import { Signature } from 'lucide';
import { Icon } from '../../ui/icons/icon';
import { Popup } from '../../ui/popup/popup';
import { Tip } from '../../ui/tip/tip';

/** Who may have written something, as they are called. */
export interface Writer {
  readonly id: Id;
  readonly label: string;
}

/** Who wrote what: every line signed, or only the ink of one person. In a lesson, and in its record. */
@Component({
  selector: 'cua-whose-ink',
  imports: [Icon, Popup, Tip],
  template: `
    <button
      type="button"
      class="step"
      aria-haspopup="dialog"
      aria-label="Who wrote what"
      [attr.aria-pressed]="signed() || only() !== null"
      cuaTip="Who wrote what"
      (click)="whose.toggle($event)"
    >
      <cua-icon [of]="icons.Signature" [size]="18" /><span class="word">{{
        onlyName() ?? 'Who wrote what'
      }}</span>
    </button>
    <cua-popup #whose label="Who wrote what">
      <div class="whose">
        <label>
          <input #sign type="checkbox" [checked]="signed()" (change)="signed.set(sign.checked)" />
          Names on every line
        </label>
        <fieldset>
          <legend>Show the ink of</legend>
          <label>
            <input type="radio" name="only" [checked]="only() === null" (change)="only.set(null)" />
            everyone
          </label>
          @for (writer of writers(); track writer.id) {
            <label>
              <input
                type="radio"
                name="only"
                [checked]="only() === writer.id"
                (change)="only.set(writer.id)"
              />
              <bdi>{{ writer.label }}</bdi> alone
            </label>
          }
        </fieldset>
      </div>
    </cua-popup>
  `,
  styles: `
    @use '../../ui/theme/breakpoints';

    :host {
      display: contents;
    }
    .step {
      display: flex;
      align-items: center;
      justify-content: center;
      gap: var(--space-3);
      min-width: var(--touch);
      min-height: var(--touch);
      padding: 0 var(--space-5);
      border: 0;
      border-radius: var(--round);
      background: none;
      color: inherit;
      font: inherit;
      cursor: pointer;
      white-space: nowrap;
    }
    .step:hover {
      background: var(--raised);
    }
    .step[aria-pressed='true'] {
      background: var(--moss-soft);
      color: var(--moss);
      font-weight: 600;
    }
    .whose {
      display: grid;
      gap: var(--space-4);
    }
    .whose label {
      display: flex;
      align-items: center;
      gap: var(--space-4);
      min-height: 36px;
      cursor: pointer;
    }
    .whose input {
      width: 18px;
      height: 18px;
    }
    fieldset {
      margin: 0;
      padding: 0;
      border: 0;
    }
    legend {
      color: var(--ink-soft);
      font-size: var(--size-m);
    }
    @media (max-width: breakpoints.$desk) {
      .word {
        display: none;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WhoseInk {
  readonly writers = input.required<readonly Writer[]>();
  readonly signed = model(false);
  readonly only = model<Id | null>(null);

  protected readonly icons = { Signature };
  protected readonly onlyName = computed(() => {
    const writer = this.writers().find(({ id }) => id === this.only());
    return writer ? `${writer.label} alone` : null;
  });
}
