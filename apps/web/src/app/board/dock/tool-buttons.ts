import {
  Eraser,
  Hand,
  Highlighter,
  LampDesk,
  MousePointer2,
  PenLine,
  SquareDashedMousePointer,
} from 'lucide';
import type { IconNode } from 'lucide';
import { KIND_TOOLS } from '../kinds/register';
import type { Tool } from '../tool/tool';

/** A tool as it stands beside the page. */
export interface ToolButton {
  readonly tool: Tool;
  readonly label: string;
  readonly icon: IconNode;
}

/** What one writes with, and moves the page. */
export const WRITING_TOOLS: readonly ToolButton[] = [
  { tool: 'pen', label: 'Pen', icon: PenLine },
  { tool: 'highlighter', label: 'Highlighter', icon: Highlighter },
  { tool: 'eraser', label: 'Eraser', icon: Eraser },
  { tool: 'hand', label: 'Move', icon: Hand },
];

export const ARRANGING_TOOLS: readonly ToolButton[] = [
  { tool: 'select', label: 'Select', icon: SquareDashedMousePointer },
  ...KIND_TOOLS,
];

export const SHOWING_TOOLS: readonly ToolButton[] = [
  { tool: 'pointer', label: 'Pointer', icon: MousePointer2 },
  { tool: 'lamp', label: 'Lamp', icon: LampDesk },
];
