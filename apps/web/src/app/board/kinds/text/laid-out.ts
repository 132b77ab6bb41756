import { SLIP_EDGE } from '@cuaderno/core/kinds';
import { eastAsianIn, layOutText, plainText } from '@cuaderno/core/text';
import type { Frame } from '@cuaderno/core/geometry';
import type { TextSpec } from '@cuaderno/core/kinds';
import type { RichText } from '@cuaderno/core/text';
import { measureIn } from '../../drawing/text-fonts';

/** A text as it is written: where its words lie is reckoned from it. */
export type TextDraft = Omit<TextSpec, 'lines' | 'order'>;

/** Least height of a slip, in points. */
const SLIP_LEAST = 60;

/** The text with its words in lines, in a frame as high as it needs. */
export function laidOut<D extends TextDraft>(draft: D): D & Pick<TextSpec, 'lines'> {
  const edge = draft.slip ? SLIP_EDGE : 0;
  const { size, align, font, frame } = draft;
  const width = Math.max(size, frame.width - 2 * edge);
  const measure = measureIn(font, size, eastAsianIn(plainText(draft.text)));
  const { lines, height } = layOutText(draft.text, { size, width, align }, measure);
  const needed = height + 2 * edge;
  return {
    ...draft,
    frame: heightened(frame, draft.slip ? Math.max(SLIP_LEAST, needed, frame.height) : needed),
    lines: lines.map(({ y, runs }) => ({
      y: y + edge,
      runs: runs.map((run) => ({ ...run, x: run.x + edge })),
    })),
  };
}

/** A frame of another height; its top left corner stays where it is, however it is turned. */
function heightened(frame: Frame, height: number): Frame {
  const grown = height - frame.height;
  const angle = (frame.turn * Math.PI) / 180;
  return {
    ...frame,
    height,
    x: frame.x - (Math.sin(angle) * grown) / 2,
    y: frame.y + ((Math.cos(angle) - 1) * grown) / 2,
  };
}

/** Whether a text says nothing. */
export function saysNothing(text: RichText): boolean {
  return text.every(({ runs }) => runs.every((run) => run.text.trim() === ''));
}
