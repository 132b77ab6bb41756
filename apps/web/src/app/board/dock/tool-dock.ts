import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import {
  Eraser,
  Hand,
  Highlighter,
  ImagePlus,
  LampDesk,
  Layers2,
  MousePointer2,
  PenLine,
  SquareDashedMousePointer,
} from 'lucide';
import { Icon } from '../../ui/icons/icon';
import { Tip } from '../../ui/tip/tip';
import { MATERIAL_TYPES } from '../editing/material-inserter';
import { KIND_TOOLS } from '../kinds/register';
import type { Tool, Tools } from '../tool/tool';

interface ToolButton {
  readonly tool: Tool;
  readonly label: string;
  readonly key: string;
  readonly icon: typeof Hand;
}

const WRITE: readonly ToolButton[] = [
  { tool: 'pen', label: 'Pen', key: 'P', icon: PenLine },
  { tool: 'highlighter', label: 'Highlighter', key: 'H', icon: Highlighter },
  { tool: 'eraser', label: 'Eraser', key: 'E', icon: Eraser },
  { tool: 'hand', label: 'Move', key: 'M', icon: Hand },
];
const ARRANGE: readonly ToolButton[] = [
  { tool: 'select', label: 'Select', key: 'C', icon: SquareDashedMousePointer },
  ...KIND_TOOLS,
];

const SHOW: readonly ToolButton[] = [
  { tool: 'pointer', label: 'Pointer', key: 'I', icon: MousePointer2 },
  { tool: 'lamp', label: 'Lamp', key: 'L', icon: LampDesk },
];

/**
 * The tools: always at the same place, at the side of the writing hand, and never over the page. Without a pen they stay
 * where they are, and are seen to be out of use. What belongs to the one in hand is in the bar below the page.
 */
@Component({
  selector: 'cua-tool-dock',
  imports: [Icon, Tip],
  templateUrl: './tool-dock.html',
  styleUrl: './tool-dock.scss',
  host: { 'data-tips': 'beside' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ToolDock {
  readonly tools = input.required<Tools>();
  /** Whether this person holds a pen. */
  readonly enabled = input(true);
  /** Whether this person lays material on pages, too. */
  readonly arranges = input(false);
  /** Whether this person may point and light the lamp just now. */
  readonly points = input(false);
  readonly lights = input(false);
  /** Files are to be brought. */
  readonly pictures = output<File[]>();
  /** Cover sheets are asked for. */
  readonly covering = output<Event>();

  protected readonly icons = { ImagePlus, Layers2 };
  protected readonly materialTypes = MATERIAL_TYPES;
  protected readonly kinds = computed<readonly ToolButton[]>(() => [
    ...WRITE,
    ...ARRANGE,
    ...SHOW.filter(({ tool }) =>
      tool === 'lamp' ? this.lights() : this.points() || this.lights(),
    ),
  ]);

  /** Whether a tool can be used just now: to move and to show needs no pen. */
  protected usable(tool: Tool): boolean {
    if (tool === 'hand') return true;
    if (tool === 'pointer') return this.points();
    return tool === 'lamp' ? this.lights() : this.enabled();
  }

  protected insertFiles(field: HTMLInputElement): void {
    const files = [...(field.files ?? [])];
    field.value = '';
    if (files.length > 0) this.pictures.emit(files);
  }
}
