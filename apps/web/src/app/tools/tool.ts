import type { HighlightName, InkName, InkStyle } from '@cuaderno/core';
import { HIGHLIGHT_WIDTHS, PEN_WIDTHS } from '@cuaderno/core';
import { computed, effect, signal } from '@angular/core';

export type Tool = 'hand' | 'pen' | 'highlighter' | 'eraser';
export type Side = 'left' | 'right';

interface Kept {
  tool: Tool;
  pen: { ink: InkName; width: number };
  highlighter: { ink: HighlightName; width: number };
  side: Side;
}

const KEY = 'cuaderno.tools';

function kept(): Partial<Kept> {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Kept>;
  } catch {
    return {};
  }
}

/** What this person writes with. It stays as it was left, on this machine. */
export class Tools {
  private readonly before = kept();
  readonly tool = signal<Tool>(this.before.tool ?? 'pen');
  readonly pen = signal<{ ink: InkName; width: number }>(
    this.before.pen ?? { ink: 'midnight', width: PEN_WIDTHS[1] },
  );
  readonly highlighter = signal<{ ink: HighlightName; width: number }>(
    this.before.highlighter ?? { ink: 'lemon', width: HIGHLIGHT_WIDTHS[1] },
  );
  /** Where the tools are docked: at the side of the writing hand. */
  readonly side = signal<Side>(this.before.side ?? 'left');

  /** How the next thing will be drawn. */
  readonly style = computed<InkStyle>(() =>
    this.tool() === 'highlighter'
      ? { tool: 'highlighter', ...this.highlighter() }
      : { tool: 'pen', ...this.pen() },
  );

  constructor() {
    effect(() => {
      const now: Kept = {
        tool: this.tool(),
        pen: this.pen(),
        highlighter: this.highlighter(),
        side: this.side(),
      };
      try {
        localStorage.setItem(KEY, JSON.stringify(now));
      } catch {
        // A convenience; where there is no room for it, tools start from scratch.
      }
    });
  }
}
