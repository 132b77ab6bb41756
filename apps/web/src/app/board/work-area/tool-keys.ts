import { ARRANGING_TOOLS, SHOWING_TOOLS, WRITING_TOOLS } from '../dock/tool-buttons';
import { PRESETS } from '../shortcuts/table';
import type { Command } from '../shortcuts/table';
import type { Tool, Tools } from '../tool/tool';

const TOOLS = [...WRITING_TOOLS, ...ARRANGING_TOOLS, ...SHOWING_TOOLS].map(({ tool }) => tool);

/**
 * Takes up a tool, an own pen, or another width by key; returns whether the key was one of these.
 * @param asks whether it is the key for something
 * @param may whether this person can use a tool just now
 */
export function toolByKey(
  asks: (command: Command) => boolean,
  tools: Tools,
  may: (tool: Tool) => boolean,
): boolean {
  const preset = PRESETS.findIndex(asks);
  if (preset >= 0) {
    if (may('pen')) tools.usePreset(preset);
    return true;
  }
  const [thicker, thinner] = [asks('thicker'), asks('thinner')];
  if (thicker || thinner) {
    tools.widen(thicker ? 1 : -1);
    return true;
  }
  const tool = TOOLS.find(asks);
  if (!tool || !may(tool)) return false;
  tools.tool.set(tool);
  return true;
}
