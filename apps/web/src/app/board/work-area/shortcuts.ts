import { KIND_TOOLS } from '../kinds/register';
import type { Tool, Tools } from '../tool/tool';

/** Keys of tools. */
const KEYS: Readonly<Record<string, Tool>> = {
  p: 'pen',
  h: 'highlighter',
  e: 'eraser',
  m: 'hand',
  c: 'select',
  ...Object.fromEntries(KIND_TOOLS.map(({ key, tool }) => [key.toLowerCase(), tool])),
  i: 'pointer',
  l: 'lamp',
};

/**
 * Takes up a tool, an own pen, or another width by key; returns whether the key was one of these.
 * @param may whether this person can use a tool just now
 */
export function toolByKey(
  event: KeyboardEvent,
  tools: Tools,
  abilities: (tool: Tool) => boolean,
): boolean {
  if (event.altKey || event.ctrlKey || event.metaKey || event.shiftKey) return false;
  const { key } = event;
  if (/^[1-4]$/.test(key)) {
    if (abilities('pen')) tools.usePreset(Number(key) - 1);
    return true;
  }
  if (key === '[' || key === ']') {
    tools.widen(key === ']' ? 1 : -1);
    return true;
  }
  const tool = KEYS[key.toLowerCase()];
  if (!tool || !abilities(tool)) return false;
  tools.tool.set(tool);
  return true;
}
