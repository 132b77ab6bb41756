import { inkColour } from '@cuaderno/core/ink';
import { Check } from 'lucide';
import { square, usual } from '../drawn';
import { ONE_COLOUR, PLAIN_KIND } from '../kind';
import type { WebKind } from '../kind';
import { MarkOptions } from './options';
import { markStyle } from './style';

/** Usual side in points. */
const USUAL = 30;

export const mark: WebKind<'mark'> = {
  ...PLAIN_KIND,
  ...ONE_COLOUR,
  tools: [{ tool: 'mark', label: 'Marks', key: 'K', icon: Check }],
  next: markStyle,
  lay({ from, points, touch }, tools) {
    const { mark, ink } = markStyle.value();
    return {
      ...{ kind: 'mark', mark, colour: inkColour(ink), layer: tools.layer() },
      frame: touch ? usual(from, USUAL) : square(from, points.at(-1)!),
    };
  },
  options: MarkOptions,
};
