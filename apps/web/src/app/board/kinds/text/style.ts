import { InkName } from '@cuaderno/core/ink';
import { TextSpec } from '@cuaderno/core/kinds';
import * as z from 'zod';
import { NextStyle } from '../next-style';

/** Sizes that are offered, in points; practice, no source. */
export const TEXT_SIZES: readonly number[] = [10, 12, 16, 20, 28, 40, 64];

/** Colours of slips: light enough for every ink, as tints are. */
export const SLIPS = [
  { label: 'Lemon slip', colour: '#fff3b0' },
  { label: 'Mint slip', colour: '#d5f0d8' },
  { label: 'Sky slip', colour: '#d6ebfa' },
  { label: 'Rose slip', colour: '#fbdfe8' },
] as const;

const { font, align } = TextSpec.shape;
const Style = z.object({
  font,
  /** Of letters, in points. */
  size: z.number().positive().max(400),
  ink: InkName,
  align,
  /** Colour of a slip. */
  slip: z.string().regex(/^#[0-9a-f]{6}$/i),
});
export type TextStyle = z.infer<typeof Style>;

/** How the next text or slip will be. */
export const textStyle = new NextStyle<TextStyle>('text', Style, {
  ...{ font: 'plain', size: 20, ink: 'coal', align: 'start', slip: SLIPS[0].colour },
});
