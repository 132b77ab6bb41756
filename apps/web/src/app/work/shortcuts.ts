import type { Tool, Tools } from '../tools/tool';

/** Keys of tools. */
const KEYS: Readonly<Record<string, Tool>> = {
  p: 'pen',
  h: 'highlighter',
  e: 'eraser',
  m: 'hand',
  c: 'select',
  g: 'shape',
  k: 'mark',
  t: 'text',
  s: 'slip',
  x: 'formula',
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
  may: (tool: Tool) => boolean,
): boolean {
  if (event.altKey || event.ctrlKey || event.metaKey || event.shiftKey) return false;
  const { key } = event;
  if (/^[1-4]$/.test(key)) {
    if (may('pen')) tools.take(Number(key) - 1);
    return true;
  }
  if (key === '[' || key === ']') {
    tools.widen(key === ']' ? 1 : -1);
    return true;
  }
  const tool = KEYS[key.toLowerCase()];
  if (!tool || !may(tool)) return false;
  tools.tool.set(tool);
  return true;
}
