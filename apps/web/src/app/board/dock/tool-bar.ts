import { NgComponentOutlet } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  model,
  output,
} from '@angular/core';
import { HIGHLIGHT_WIDTHS, HIGHLIGHTS, inkColour, INKS, PEN_WIDTHS } from '@cuaderno/core/ink';
import type { Item } from '@cuaderno/core/board';
import type { HighlightName, InkName } from '@cuaderno/core/ink';
import {
  Brush,
  Circle,
  Expand,
  Lasso,
  MoveDownLeft,
  Redo2,
  Shrink,
  Square,
  SquareDashed,
  Undo2,
} from 'lucide';
import { Icon } from '../../ui/icons/icon';
import { Tip } from '../../ui/tip/tip';
import type { SelectionCommand } from '../editing/arranging';
import type { TraitsOf, Written } from '../kinds/kind';
import { colourOf, hasColour, kindOfTool, lineWidthOf, optionsOf } from '../kinds/register';
import type { ChosenOptions } from '../kinds/register';
import { PresetRow } from './preset-row';
import { SelectionActions } from './selection-actions';
import { Shortcuts } from '../shortcuts/shortcuts';
import type { Tools } from '../tool/tool';

/** A component of a kind, with what it is given. */
interface KindView {
  readonly options: ChosenOptions['options'];
  readonly inputs: Record<string, unknown>;
}

/** Labels of the widths, thin to broad. */
const WIDTH_NAMES = ['Fine', 'Medium', 'Thick', 'Broad'];

/**
 * What belongs to the tool in hand: own pens, inks, widths and its options; and the steps back. Below the page, always in
 * sight, and as high whatever is in hand, so that the page stays where it is.
 */
@Component({
  selector: 'cua-tool-bar',
  imports: [Icon, NgComponentOutlet, PresetRow, SelectionActions, Tip],
  templateUrl: './tool-bar.html',
  styleUrl: './tool-bar.scss',
  host: {
    role: 'toolbar',
    'aria-label': 'Tool in hand',
    '[class.short]': 'pageOnly()',
    '(mousedown)': 'keepWriting($event)',
  },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ToolBar {
  readonly tools = input.required<Tools>();
  /** Whether this person holds a pen. */
  readonly enabled = input(true);
  /** Whether there is only the page in the window, and few tools. */
  readonly pageOnly = model(false);
  readonly canUndo = input(false);
  readonly canRedo = input(false);
  readonly undo = output();
  readonly redo = output();

  protected readonly shortcuts = inject(Shortcuts);
  protected readonly icons = {
    Brush,
    Circle,
    Expand,
    Lasso,
    MoveDownLeft,
    Square,
    Redo2,
    Shrink,
    SquareDashed,
    Undo2,
  };
  /** Whether this person lays material on pages, too. */
  readonly arranges = input(false);
  /** What is chosen on the page. */
  readonly chosen = input<readonly Item[]>([]);
  readonly cropping = input(false);
  /** Whether what is chosen may be taken away by this person. */
  readonly mayRemove = input(true);
  readonly selectionCommand = output<SelectionCommand>();

  /** Whether this person may light the lamp just now. */
  readonly lights = input(false);
  /** Whether the lamp is lit, and whether arrows stand somewhere. */
  readonly isLit = input(false);
  readonly hasArrows = input(false);
  readonly putOut = output();
  readonly arrowsOff = output();
  readonly wiped = output();

  /** What is being written just now, a text or a formula. */
  readonly written = input<Written | null>(null);
  private readonly kindInHand = computed(() => kindOfTool(this.tools().tool()));
  /** What can be chosen for the kind whose tool is in hand, or for those of which some are chosen. */
  protected readonly kindOptions = computed(() => {
    const inHand = this.kindInHand()?.options;
    const shown =
      this.tools().tool() === 'select'
        ? [...optionsOf(this.chosen())]
        : inHand
          ? [{ options: inHand, items: [] }]
          : [];
    // A text is written that was opened by another tool than its own.
    const words = this.written()?.text && kindOfTool('text')?.options;
    if (words && !shown.some(({ options }) => options === words))
      shown.push({ options: words, items: [] });
    return shown.map(this.given);
  });
  /** Own pens stand where nothing else is to be chosen; their number keys are there always. */
  protected readonly showsPresets = computed(() =>
    ['pen', 'highlighter', 'hand'].includes(this.tools().tool()),
  );
  /** How broad the lines are of those that are chosen, the first standing for all; `null` where they have none. */
  private readonly chosenWidth = computed(() => {
    if (this.tools().tool() !== 'select') return null;
    const widths = this.chosen().map((item) =>
      'fixed' in item && item.fixed ? null : lineWidthOf(item),
    );
    return widths.find((width) => width !== null) ?? null;
  });
  /** What the inks are for just now. */
  protected readonly coloursChosen = computed(
    () => this.tools().tool() === 'select' && this.chosen().some(hasColour),
  );

  /** The colour of what is chosen, if that can be given another; the first stands for all. */
  private readonly chosenColour = computed(() => {
    if (!this.coloursChosen()) return null;
    const [first] = this.chosen().filter(hasColour);
    return first ? colourOf(first) : null;
  });

  protected readonly inks = computed(() => {
    const tools = this.tools();
    const marking = tools.tool() === 'highlighter';
    const chosen = marking
      ? tools.highlighter().ink
      : (this.kindInHand()?.next?.value().ink ?? tools.pen().ink);
    const colour = this.chosenColour();
    return (marking ? HIGHLIGHTS : INKS).map((ink) => ({
      ...ink,
      marking,
      chosen: colour === null ? ink.name === chosen : ink.colour === colour,
    }));
  });

  protected readonly widths = computed(() => {
    const marking = this.tools().tool() === 'highlighter';
    const tools = this.tools();
    const chosen = marking
      ? tools.highlighter().width
      : (this.chosenWidth() ?? this.kindInHand()?.next?.value().width ?? tools.pen().width);
    return (marking ? HIGHLIGHT_WIDTHS : PEN_WIDTHS).map((width, i) => ({
      width,
      chosen: width === chosen,
      label: marking ? WIDTH_NAMES[i + 1]! : WIDTH_NAMES[i]!,
      shown: marking ? Math.min(22, width * 0.8) : Math.max(2, Math.min(22, width * 1.2)),
    }));
  });

  protected readonly hasInk = computed(
    () =>
      ['pen', 'highlighter'].includes(this.tools().tool()) ||
      this.written() !== null ||
      (this.kindInHand()?.colour ?? null) !== null ||
      this.coloursChosen(),
  );
  protected readonly hasWidth = computed(
    () =>
      ['pen', 'highlighter'].includes(this.tools().tool()) ||
      this.kindInHand()?.next?.value().width !== undefined ||
      this.chosenWidth() !== null,
  );

  protected chooseInk(name: string): void {
    const tools = this.tools();
    const ink = name as InkName;
    const written = this.written();
    if (written) return written.restyle({ ink });
    const next = this.kindInHand()?.next;
    if (next) return next.set({ ink });
    switch (tools.tool()) {
      case 'highlighter':
        return tools.highlighter.update((pen) => ({ ...pen, ink: name as HighlightName }));
      case 'select':
        return this.selectionCommand.emit({ kind: 'colour', colour: inkColour(ink) });
      default:
        return tools.pen.update((pen) => ({ ...pen, ink }));
    }
  }

  protected chooseWidth(width: number): void {
    const tools = this.tools();
    const next = this.kindInHand()?.next;
    if (tools.tool() === 'highlighter') tools.highlighter.update((pen) => ({ ...pen, width }));
    else if (next) next.set({ width });
    else if (this.chosenWidth() !== null) this.selectionCommand.emit({ kind: 'width', width });
    else tools.pen.update((pen) => ({ ...pen, width }));
  }

  /** Anyone who is writing goes on writing while the tools are used; a list has to be opened, though. */
  protected keepWriting(event: MouseEvent): void {
    if (this.written()?.text && !(event.target as Element).closest('select'))
      event.preventDefault();
  }

  private readonly given = ({ options, items }: ChosenOptions): KindView => {
    const ids = items.map(({ id }) => id);
    const change = (to: TraitsOf): void => this.selectionCommand.emit({ kind: 'traits', ids, to });
    const { tool } = this.tools();
    return { options, inputs: { tool: tool(), items, written: this.written(), change } };
  };
}
