import { StickyNote, Type } from 'lucide';
import { ONE_COLOUR, PLAIN_KIND } from '../kind';
import type { WebKind } from '../kind';

export const text: WebKind<'text'> = {
  ...PLAIN_KIND,
  ...ONE_COLOUR,
  tools: [
    { tool: 'text', label: 'Text', key: 'T', icon: Type },
    { tool: 'slip', label: 'Slip', key: 'S', icon: StickyNote },
  ],
  stretches: true,
  editor: 'text',
};
