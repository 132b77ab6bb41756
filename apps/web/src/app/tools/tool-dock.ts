import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { HIGHLIGHT_WIDTHS, HIGHLIGHTS, INKS, PEN_WIDTHS } from '@cuaderno/core';
import type { HighlightName, InkName } from '@cuaderno/core';
import { ArrowLeftRight, Eraser, Hand, Highlighter, PenLine, Redo2, Undo2 } from 'lucide';
import { Icon } from '../icons/icon';
import type { Tool, Tools } from './tool';

/** Labels of the widths, thin to broad. */
const WIDTH_NAMES = ['Fine', 'Medium', 'Thick', 'Broad'];

/**
 * What one writes with: always at the same place, at the side of the writing hand, and never over
 * the page. Without a pen it stays where it is, and is seen to be out of use.
 */
@Component({
  selector: 'cua-tool-dock',
  imports: [Icon],
  templateUrl: './tool-dock.html',
  styleUrl: './tool-dock.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ToolDock {
  readonly tools = input.required<Tools>();
  /** Whether this person holds a pen. */
  readonly enabled = input(true);
  readonly canUndo = input(false);
  readonly canRedo = input(false);
  readonly undo = output();
  readonly redo = output();

  protected readonly icons = { ArrowLeftRight, Redo2, Undo2 };
  protected readonly kinds: readonly {
    tool: Tool;
    label: string;
    key: string;
    icon: typeof Hand;
  }[] = [
    { tool: 'pen', label: 'Pen', key: 'P', icon: PenLine },
    { tool: 'highlighter', label: 'Highlighter', key: 'H', icon: Highlighter },
    { tool: 'eraser', label: 'Eraser', key: 'E', icon: Eraser },
    { tool: 'hand', label: 'Move', key: 'M', icon: Hand },
  ];

  protected readonly inks = computed(() => {
    const marking = this.tools().tool() === 'highlighter';
    const chosen = marking ? this.tools().highlighter().ink : this.tools().pen().ink;
    return (marking ? HIGHLIGHTS : INKS).map((ink) => ({
      ...ink,
      marking,
      chosen: ink.name === chosen,
    }));
  });

  protected readonly widths = computed(() => {
    const marking = this.tools().tool() === 'highlighter';
    const chosen = marking ? this.tools().highlighter().width : this.tools().pen().width;
    return (marking ? HIGHLIGHT_WIDTHS : PEN_WIDTHS).map((width, i) => ({
      width,
      chosen: width === chosen,
      label: marking ? WIDTH_NAMES[i + 1]! : WIDTH_NAMES[i]!,
      shown: marking ? Math.min(22, width * 0.8) : Math.max(2, Math.min(22, width * 1.2)),
    }));
  });

  protected readonly hasStyle = computed(() =>
    ['pen', 'highlighter'].includes(this.tools().tool()),
  );

  protected chooseInk(name: string): void {
    const tools = this.tools();
    if (tools.tool() === 'highlighter')
      tools.highlighter.update((pen) => ({ ...pen, ink: name as HighlightName }));
    else tools.pen.update((pen) => ({ ...pen, ink: name as InkName }));
  }

  protected chooseWidth(width: number): void {
    const tools = this.tools();
    if (tools.tool() === 'highlighter') tools.highlighter.update((pen) => ({ ...pen, width }));
    else tools.pen.update((pen) => ({ ...pen, width }));
  }

  protected changeSide(): void {
    this.tools().side.update((side) => (side === 'left' ? 'right' : 'left'));
  }
}
