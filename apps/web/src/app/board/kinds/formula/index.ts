import { Sigma } from 'lucide';
import { ONE_COLOUR, PLAIN_KIND } from '../kind';
import type { WebKind } from '../kind';
import { formulaStyle } from './style';

export const formula: WebKind<'formula'> = {
  ...PLAIN_KIND,
  ...ONE_COLOUR,
  tools: [{ tool: 'formula', label: 'Formula', key: 'X', icon: Sigma }],
  next: formulaStyle,
  editor: 'formula',
};
