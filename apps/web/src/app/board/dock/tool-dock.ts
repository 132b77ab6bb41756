import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { ArrowLeftRight, ImagePlus, Layers2 } from 'lucide';
import { Icon } from '../../ui/icons/icon';
import { Tip } from '../../ui/tip/tip';
import { MATERIAL_TYPES } from '../editing/material-inserter';
import { Shortcuts } from '../shortcuts/shortcuts';
import type { Tool, Tools } from '../tool/tool';
import { ARRANGING_TOOLS, SHOWING_TOOLS, WRITING_TOOLS } from './tool-buttons';
import type { ToolButton } from './tool-buttons';

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

  protected readonly shortcuts = inject(Shortcuts);
  protected readonly icons = { ArrowLeftRight, ImagePlus, Layers2 };
  protected readonly materialTypes = MATERIAL_TYPES;
  protected readonly kinds = computed<readonly ToolButton[]>(() => [
    ...WRITING_TOOLS,
    ...ARRANGING_TOOLS,
    ...SHOWING_TOOLS.filter(({ tool }) =>
      tool === 'lamp' ? this.lights() : this.points() || this.lights(),
    ),
  ]);

  /** Whether a tool can be used just now: to move and to show needs no pen. */
  protected usable(tool: Tool): boolean {
    if (tool === 'hand') return true;
    if (tool === 'pointer') return this.points();
    return tool === 'lamp' ? this.lights() : this.enabled();
  }

  protected changeSide(): void {
    this.tools().side.update((side) => (side === 'left' ? 'right' : 'left'));
  }

  protected insertFiles(field: HTMLInputElement): void {
    const files = [...(field.files ?? [])];
    field.value = '';
    if (files.length > 0) this.pictures.emit(files);
  }
}
