import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { highlightColour, inkColour } from '@cuaderno/core/ink';
import { Pin } from 'lucide';
import { Icon } from '../../ui/icons/icon';
import { Tip } from '../../ui/tip/tip';
import { Shortcuts } from '../shortcuts/shortcuts';
import { PRESETS } from '../shortcuts/table';
import { samePen } from '../tool/presets';
import type { Tools } from '../tool/tool';

/** Own pens, a touch or a number key away; what is in hand can be kept in the place of one of them. */
@Component({
  selector: 'cua-preset-row',
  imports: [Icon, Tip],
  template: `
    <div class="row" role="group" aria-label="Mine">
      @for (pen of pens(); track $index) {
        <button
          type="button"
          class="pot"
          [class.keeping]="keeping()"
          [attr.aria-pressed]="pen.chosen"
          [attr.aria-label]="(keeping() ? 'Keep it as ' : '') + pen.label"
          [cuaTip]="shortcuts.tip(pen.label, keys[$index]!)"
          [attr.aria-keyshortcuts]="shortcuts.aria(keys[$index]!)"
          [disabled]="!enabled()"
          (click)="touch($index)"
        >
          <span
            class="stroke"
            [class.marking]="pen.marking"
            [style.height.px]="pen.shown"
            [style.background]="pen.colour"
          ></span>
          <span class="number">{{ $index + 1 }}</span>
        </button>
      }
      <button
        type="button"
        class="pot keep"
        [attr.aria-pressed]="keeping()"
        aria-label="Save this pen"
        cuaTip="Save this pen: press, then choose where"
        [disabled]="!enabled() || !mayKeep()"
        (click)="keeping.set(!keeping())"
      >
        <cua-icon [of]="icons.Pin" [size]="16" />
      </button>
    </div>
  `,
  styleUrl: './preset-row.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PresetRow {
  readonly tools = input.required<Tools>();
  readonly enabled = input(true);

  protected readonly icons = { Pin };
  protected readonly shortcuts = inject(Shortcuts);
  protected readonly keys = PRESETS;
  protected readonly keeping = signal(false);
  protected readonly mayKeep = computed(() => ['pen', 'highlighter'].includes(this.tools().tool()));
  protected readonly pens = computed(() => {
    const tools = this.tools();
    const inHand = this.mayKeep() ? tools.style() : null;
    return tools.presets().map((pen, i) => ({
      marking: pen.tool === 'highlighter',
      colour: pen.tool === 'highlighter' ? highlightColour(pen.ink) : inkColour(pen.ink),
      shown: Math.max(2, Math.min(18, pen.width * 0.9)),
      label: `Mine ${i + 1}: ${pen.ink}, ${pen.width} points wide`,
      chosen: inHand !== null && samePen(inHand, pen),
    }));
  });

  protected touch(index: number): void {
    if (this.keeping()) this.tools().keep(index);
    else this.tools().usePreset(index);
    this.keeping.set(false);
  }
}
