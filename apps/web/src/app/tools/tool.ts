import { computed, effect, signal } from '@angular/core';
import { HIGHLIGHT_WIDTHS, inkColour, PEN_WIDTHS } from '@cuaderno/core';
import type {
  FormulaSpec,
  HighlightName,
  InkName,
  InkStyle,
  Lamp,
  MarkName,
  ShapeSpec,
  TextFont,
  TextSpec,
} from '@cuaderno/core';
import { lasting, remember } from '../browser/storage';
import type { LayStyle } from '../stage/laying';
import { FIRST_PRESETS } from './presets';

export type Tool =
  | 'hand'
  | 'pen'
  | 'highlighter'
  | 'eraser'
  | 'select'
  | 'shape'
  | 'mark'
  | 'text'
  | 'slip'
  | 'formula'
  | 'pointer'
  | 'lamp';
export type Side = 'left' | 'right';

/** A figure as it is chosen: a line with heads is an arrow. */
export type Figure = 'line' | 'arrow' | 'arrows' | Exclude<ShapeSpec['shape'], 'line'>;

export interface FigureStyle {
  readonly figure: Figure;
  readonly ink: InkName;
  readonly width: number;
  readonly filled: boolean;
  readonly dashed: boolean;
}

/** How the next text or slip will be. */
export interface TextStyle {
  readonly font: TextFont;
  /** In points. */
  readonly size: number;
  readonly ink: InkName;
  readonly align: TextSpec['align'];
  /** Colour of the next slip. */
  readonly slip: string;
}

/** How the next formula will be. */
export interface FormulaStyle {
  readonly notation: FormulaSpec['notation'];
  /** Of its letters, in points. */
  readonly size: number;
  readonly ink: InkName;
}

/** Sizes that are offered, in points; practice, no source. */
export const FORMULA_SIZES = [12, 16, 20, 28, 40, 64] as const;
export const TEXT_SIZES = [10, 12, 16, 20, 28, 40, 64] as const;
/** Colours of slips: light enough for every ink, as tints are. */
export const SLIPS = [
  { label: 'Lemon slip', colour: '#fff3b0' },
  { label: 'Mint slip', colour: '#d5f0d8' },
  { label: 'Sky slip', colour: '#d6ebfa' },
  { label: 'Rose slip', colour: '#fbdfe8' },
] as const;

interface Kept {
  tool: Tool;
  pen: { ink: InkName; width: number };
  highlighter: { ink: HighlightName; width: number };
  figure: FigureStyle;
  mark: { mark: MarkName; ink: InkName };
  text: TextStyle;
  formula: FormulaStyle;
  lasso: boolean;
  rubs: boolean;
  leavesArrow: boolean;
  lamp: Lamp['shape'];
  presets: readonly InkStyle[];
  side: Side;
  /** The lesson in which these tools were in hand. */
  lesson: string | null;
}

const KEY = 'cuaderno.tools';
/** How much of the ink is in what fills a figure of it. */
const FILL = 0.16;

function kept(): Partial<Kept> {
  try {
    return JSON.parse(lasting.getItem(KEY) ?? '{}') as Partial<Kept>;
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
  readonly figure = signal<FigureStyle>(
    this.before.figure ?? {
      figure: 'arrow',
      ink: 'poppy',
      width: PEN_WIDTHS[1],
      filled: false,
      dashed: false,
    },
  );
  readonly mark = signal<{ mark: MarkName; ink: InkName }>(
    this.before.mark ?? { mark: 'tick', ink: 'poppy' },
  );
  readonly text = signal<TextStyle>(
    this.before.text ?? {
      font: 'plain',
      size: 20,
      ink: 'coal',
      align: 'start',
      slip: SLIPS[0].colour,
    },
  );
  readonly formula = signal<FormulaStyle>(
    this.before.formula ?? { notation: 'typed', size: 28, ink: 'coal' },
  );
  /** Whether several things are chosen by going round them, and not by a box. */
  readonly lasso = signal(this.before.lasso ?? false);
  /** Whether the eraser takes parts of lines, and not whole things. */
  readonly rubs = signal(this.before.rubs ?? false);
  /** Whether the pointer leaves an arrow where it touches, and isn't a dot that moves. */
  readonly leavesArrow = signal(this.before.leavesArrow ?? false);
  readonly lamp = signal<Lamp['shape']>(this.before.lamp ?? 'round');
  /** Own pens, a touch away. */
  readonly presets = signal<readonly InkStyle[]>(this.before.presets ?? FIRST_PRESETS);
  /** Where things are laid: under the ink while a board is prepared, with it in a lesson. */
  readonly layer = signal<ShapeSpec['layer']>('material');
  /** Where the tools are docked: at the side of the writing hand. */
  readonly side = signal<Side>(this.before.side ?? 'left');

  private readonly lesson = signal<string | null>(this.before.lesson ?? null);

  /** How the next thing will be drawn. */
  readonly style = computed<InkStyle>(() =>
    this.tool() === 'highlighter'
      ? { tool: 'highlighter', ...this.highlighter() }
      : { tool: 'pen', ...this.pen() },
  );
  /** How the next figure or mark will be. */
  readonly layStyle = computed<LayStyle>(() => {
    if (this.tool() === 'mark') {
      const { mark, ink } = this.mark();
      return { kind: 'mark', mark, colour: inkColour(ink), layer: this.layer() };
    }
    const { figure, ink, width, filled, dashed } = this.figure();
    const line = figure === 'line' || figure === 'arrow' || figure === 'arrows';
    return {
      kind: 'shape',
      shape: line ? 'line' : figure,
      heads: figure === 'arrow' ? 'end' : figure === 'arrows' ? 'both' : 'none',
      outline: { colour: inkColour(ink), width, ...(dashed ? { dashed } : {}) },
      fill: filled && !line ? fillOf(inkColour(ink)) : null,
      layer: this.layer(),
    };
  });

  constructor() {
    effect(() => {
      const now: Kept = {
        tool: this.tool(),
        pen: this.pen(),
        highlighter: this.highlighter(),
        figure: this.figure(),
        mark: this.mark(),
        text: this.text(),
        formula: this.formula(),
        lasso: this.lasso(),
        rubs: this.rubs(),
        leavesArrow: this.leavesArrow(),
        lamp: this.lamp(),
        presets: this.presets(),
        side: this.side(),
        lesson: this.lesson(),
      };
      remember(lasting, KEY, JSON.stringify(now));
    });
  }

  /** A lesson is on: a new one begins with the pen in hand, whatever was needed last in the one before. */
  begin(lesson: string): void {
    if (this.lesson() === lesson) return;
    this.lesson.set(lesson);
    this.tool.set('pen');
  }

  /** Takes one of the own pens in hand. */
  take(index: number): void {
    const pen = this.presets()[index];
    if (!pen) return;
    if (pen.tool === 'highlighter') this.highlighter.set({ ink: pen.ink, width: pen.width });
    else this.pen.set({ ink: pen.ink, width: pen.width });
    this.tool.set(pen.tool);
  }

  /** Keeps the pen in hand in the place of one of the own pens. */
  keep(index: number): void {
    const inHand = this.style();
    this.presets.update((pens) => pens.map((pen, i) => (i === index ? inHand : pen)));
  }

  /** Makes the next line thinner or thicker by a step. */
  widen(by: 1 | -1): void {
    const marking = this.tool() === 'highlighter';
    const steps: readonly number[] = marking ? HIGHLIGHT_WIDTHS : PEN_WIDTHS;
    const next = (width: number): number => {
      const at = steps.indexOf(width);
      return steps[Math.max(0, Math.min(steps.length - 1, at + by))] ?? width;
    };
    if (marking) this.highlighter.update((pen) => ({ ...pen, width: next(pen.width) }));
    else this.pen.update((pen) => ({ ...pen, width: next(pen.width) }));
  }
}

/** What a figure of this colour is filled with: so light that ink can be read on it. */
export function fillOf(colour: string): string {
  const mixed = [1, 3, 5].map((i) => {
    const part = parseInt(colour.slice(i, i + 2), 16);
    return Math.round(255 + (part - 255) * FILL)
      .toString(16)
      .padStart(2, '0');
  });
  return `#${mixed.join('')}`;
}
