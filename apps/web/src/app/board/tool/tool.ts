import { teaches } from '@cuaderno/core/permissions';
import { computed, effect, signal } from '@angular/core';
import { HIGHLIGHT_WIDTHS, PEN_WIDTHS } from '@cuaderno/core/ink';
import type { Lamp } from '@cuaderno/core/features';
import type { HighlightName, InkName, InkStyle } from '@cuaderno/core/ink';
import type { KindName, ShapeSpec } from '@cuaderno/core/kinds';
import type { Role } from '@cuaderno/core/permissions';
import { keepTools, keptTools } from './kept-tools';
import { FIRST_PRESETS } from './presets';

/** Tools that make items are called as their kind; a slip is a text, and what comes in files needs no tool. */
export type Tool =
  | 'hand'
  | 'pen'
  | 'highlighter'
  | 'eraser'
  | 'select'
  | 'slip'
  | 'pointer'
  | 'lamp'
  | Exclude<KindName, 'picture' | 'media' | 'cover'>;
export type Side = 'left' | 'right';

/** What this person writes with. It stays as it was left, on this machine. */
export class Tools {
  private readonly before = keptTools();
  readonly tool = signal<Tool>(this.before.tool ?? 'pen');
  readonly pen = signal<{ ink: InkName; width: number }>(
    this.before.pen ?? { ink: 'midnight', width: PEN_WIDTHS[1] },
  );
  readonly highlighter = signal<{ ink: HighlightName; width: number }>(
    this.before.highlighter ?? { ink: 'lemon', width: HIGHLIGHT_WIDTHS[1] },
  );
  /** Whether several things are chosen by going round them, and not by a box. */
  readonly lasso = signal(this.before.lasso ?? false);
  /** Whether the eraser takes parts of lines, and not whole items. */
  readonly rubs = signal(this.before.rubs ?? false);
  /** Whether the pointer leaves an arrow where it touches, and isn't a dot that moves. */
  readonly leavesArrow = signal(this.before.leavesArrow ?? false);
  readonly lamp = signal<Lamp['shape']>(this.before.lamp ?? 'round');
  /** Own pens, a touch away. */
  readonly presets = signal<readonly InkStyle[]>(this.before.presets ?? FIRST_PRESETS);
  /** Where things are laid: under the ink while a board is prepared, with it in a lesson. */
  readonly layer = signal<ShapeSpec['layer']>('material');
  /** Where teaching aids are laid: under the ink by the tutor, so that they can be written on. */
  readonly aidLayer = signal<ShapeSpec['layer']>('material');
  /** Where the tools are docked: at the side of the writing hand. */
  readonly side = signal<Side>(this.before.side ?? 'left');

  private readonly lesson = signal<string | null>(this.before.lesson ?? null);

  /** How the next line will be drawn. */
  readonly style = computed<InkStyle>(() =>
    this.tool() === 'highlighter'
      ? { tool: 'highlighter', ...this.highlighter() }
      : { tool: 'pen', ...this.pen() },
  );
  constructor() {
    effect(() => {
      keepTools({
        tool: this.tool(),
        pen: this.pen(),
        highlighter: this.highlighter(),
        lasso: this.lasso(),
        rubs: this.rubs(),
        leavesArrow: this.leavesArrow(),
        lamp: this.lamp(),
        presets: [...this.presets()],
        side: this.side(),
        lesson: this.lesson(),
      });
    });
  }

  /** A lesson is on: a new one begins with the pen in hand, whatever was needed last in the one before. */
  begin(lesson: string): void {
    if (this.lesson() === lesson) return;
    this.lesson.set(lesson);
    this.tool.set('pen');
  }

  /** Says where items are laid from now on. */
  layFor(role: Role, inLesson: boolean): void {
    const lays = teaches(role);
    this.layer.set(lays && !inLesson ? 'material' : 'ink');
    this.aidLayer.set(lays ? 'material' : 'ink');
  }

  /** Takes one of the own pens in hand. */
  usePreset(index: number): void {
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
