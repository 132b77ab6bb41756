import { StickyNote, Type } from 'lucide';
import { ONE_COLOUR, PLAIN_KIND } from '../kind';
import type { WebKind } from '../kind';
import { TextOptions } from './options';
import { textStyle } from './style';

export const text: WebKind<'text'> = {
  ...PLAIN_KIND,
  ...ONE_COLOUR,
  tools: [
    { tool: 'text', label: 'Text', key: 'T', icon: Type },
    { tool: 'slip', label: 'Slip', key: 'S', icon: StickyNote },
  ],
  next: textStyle,
  stretches: true,
  editor: 'text',
  options: TextOptions,
};
