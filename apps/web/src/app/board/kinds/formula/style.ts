import { InkName } from '@cuaderno/core/ink';
import { FormulaSpec } from '@cuaderno/core/kinds';
import * as z from 'zod';
import { NextStyle } from '../next-style';

/** Sizes that are offered, in points; practice, no source. */
export const FORMULA_SIZES = [12, 16, 20, 28, 40, 64] as const;

const Style = z.object({
  notation: FormulaSpec.shape.notation,
  /** Of its letters, in points. */
  size: z.number().positive().max(400),
  ink: InkName,
});
export type FormulaStyle = z.infer<typeof Style>;

/** How the next formula will be. */
export const formulaStyle = new NextStyle<FormulaStyle>('formula', Style, {
  ...{ notation: 'typed', size: 28, ink: 'coal' },
});
