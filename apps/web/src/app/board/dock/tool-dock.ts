import { NgComponentOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { HIGHLIGHT_WIDTHS, HIGHLIGHTS, inkColour, INKS, PEN_WIDTHS } from '@cuaderno/core';
import type { HighlightName, InkName, Item, MarkName, TextFont, TextSpec } from '@cuaderno/core';
import {
  ArrowLeftRight,
  Brush,
  Check,
  Circle,
  CircleAlert,
  CircleQuestionMark,
  Eraser,
  Hand,
  Heart,
  Highlighter,
  ImagePlus,
  Lasso,
  LampDesk,
  Layers2,
  MousePointer2,
  MoveDiagonal,
  MoveDownLeft,
  MoveUpRight,
  PaintBucket,
  PenLine,
  Pentagon,
  Redo2,
  Slash,
  Square,
  Scissors,
  SquareDashed,
  SquareDashedMousePointer,
  Star,
  TextAlignCenter,
  TextAlignEnd,
  TextAlignStart,
  Triangle,
  Undo2,
  X,
} from 'lucide';
import { Icon } from '../../ui/icons/icon';
import type { SelectionCommand, ShapeStyle } from '../editing/arranging';
import { MATERIAL_TYPES } from '../editing/material-inserter';
import type { TextDraft } from '../editing/writing-text';
import { TEXT_MARKS } from '../../ui/rich-text/text-marks';
import type { TextMark } from '../../ui/rich-text/text-marks';
import { families } from '../drawing/text-fonts';
import { colourOf, hasColour, kindOfTool, KIND_TOOLS, optionsOf } from '../kinds/register';
import type { KindOptions } from '../kinds/kind';
import { PresetRow } from './preset-row';
import { SelectionActions } from './selection-actions';
import { SLIPS, TEXT_SIZES } from '../tool/tool';
import type { Figure, FormulaStyle, TextStyle, Tool, Tools } from '../tool/tool';

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

const ALIGNS: readonly { align: TextSpec['align']; label: string; icon: typeof Hand }[] = [
  { align: 'start', label: 'From the start', icon: TextAlignStart },
  { align: 'middle', label: 'In the middle', icon: TextAlignCenter },
  { align: 'end', label: 'To the end', icon: TextAlignEnd },
];

const FONTS: readonly { font: TextFont; label: string }[] = [
  { font: 'plain', label: 'For reading' },
  { font: 'title', label: 'For titles' },
  { font: 'dyslexic', label: 'For readers who mix up letters' },
];

const FIGURES: readonly { figure: Figure; label: string; icon: typeof Hand }[] = [
  { figure: 'line', label: 'Line', icon: Slash },
  { figure: 'arrow', label: 'Arrow', icon: MoveUpRight },
  { figure: 'arrows', label: 'Arrow with two heads', icon: MoveDiagonal },
  { figure: 'box', label: 'Box', icon: Square },
  { figure: 'ellipse', label: 'Ellipse', icon: Circle },
  { figure: 'triangle', label: 'Triangle', icon: Triangle },
  { figure: 'polygon', label: 'Polygon: draw round its corners', icon: Pentagon },
];

const MARK_KINDS: readonly { mark: MarkName; label: string; icon: typeof Hand }[] = [
  { mark: 'tick', label: 'Tick', icon: Check },
  { mark: 'cross', label: 'Cross', icon: X },
  { mark: 'star', label: 'Star', icon: Star },
  { mark: 'question', label: 'Question mark', icon: CircleQuestionMark },
  { mark: 'attention', label: 'Look here', icon: CircleAlert },
  { mark: 'heart', label: 'Heart', icon: Heart },
];

/** Labels of the widths, thin to broad. */
const WIDTH_NAMES = ['Fine', 'Medium', 'Thick', 'Broad'];

/**
 * What one writes with: always at the same place, at the side of the writing hand, and never over
 * the page. Without a pen it stays where it is, and is seen to be out of use.
 */
@Component({
  selector: 'cua-tool-dock',
  imports: [Icon, NgComponentOutlet, PresetRow, SelectionActions],
  templateUrl: './tool-dock.html',
  styleUrl: './tool-dock.scss',
  host: { '(mousedown)': 'keepWriting($event)' },
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

  protected readonly icons = {
    ArrowLeftRight,
    ImagePlus,
    Brush,
    Circle,
    Lasso,
    Layers2,
    MousePointer2,
    MoveDownLeft,
    PaintBucket,
    Scissors,
    Square,
    Redo2,
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
  /** Pictures are to be brought. */
  readonly pictures = output<File[]>();

  /** Whether this person may point and light the lamp just now. */
  readonly points = input(false);
  readonly lights = input(false);
  /** Whether the lamp is lit, and whether arrows stand somewhere. */
  readonly isLit = input(false);
  readonly hasArrows = input(false);
  readonly putOut = output();
  readonly arrowsOff = output();
  readonly wiped = output();
  /** Cover sheets are asked for. */
  readonly covering = output<Event>();

  protected readonly kinds = computed<readonly ToolButton[]>(() => [
    ...WRITE,
    ...ARRANGE,
    ...SHOW.filter(({ tool }) =>
      tool === 'lamp' ? this.lights() : this.points() || this.lights(),
    ),
  ]);
  protected readonly materialTypes = MATERIAL_TYPES;
  protected readonly figures = FIGURES;
  protected readonly marks = MARK_KINDS;
  protected readonly textMarks = TEXT_MARKS;
  protected readonly aligns = ALIGNS;
  protected readonly fonts = FONTS;
  protected readonly families = families;
  protected readonly sizes = TEXT_SIZES;
  protected readonly slips = SLIPS;
  /** The text that is being written just now. */
  readonly draft = input<TextDraft | null>(null);
  /** Words are to look like this: those being written, those chosen, or the next. */
  readonly styled = output<Partial<TextStyle>>();
  readonly marked = output<TextMark>();
  /** The formula that is written, or the next one, is to look like this. */
  readonly formula = output<Partial<FormulaStyle>>();
  /** The text that is chosen, if it is one. */
  private readonly chosenText = computed(() => {
    const [only] = this.chosen();
    return this.tools().tool() === 'select' && only?.kind === 'text' ? only : null;
  });
  /** How words look that are written next, or those that are chosen; `null` where there are none. */
  protected readonly textStyle = computed(() => {
    const tools = this.tools();
    const text = this.draft() ?? this.chosenText();
    if (text) return { font: text.font, size: text.size, align: text.align, slip: text.slip };
    const { font, size, align, slip } = tools.text();
    if (tools.tool() === 'text') return { font, size, align, slip: null };
    return tools.tool() === 'slip' ? { font, size, align, slip } : null;
  });
  /** How figures are drawn: those that are chosen, the first standing for all, or the next. */
  protected readonly shapeStyle = computed<Required<ShapeStyle> | null>(() => {
    const tools = this.tools();
    if (tools.tool() === 'shape') return tools.figure();
    if (tools.tool() !== 'select') return null;
    const chosen = this.chosen().find((item) => item.kind === 'shape' && !item.fixed);
    if (chosen?.kind !== 'shape' || !chosen.outline) return null;
    const { width, dashed = false } = chosen.outline;
    return { width, dashed, filled: chosen.fill !== null };
  });
  /** What can be chosen for the kind whose tool is in hand, or of which one is chosen alone. */
  protected readonly kindOptions = computed(() => {
    const tool = this.tools().tool();
    const [only] = this.chosen();
    if (tool !== 'select') {
      const options = kindOfTool(tool)?.options ?? null;
      return options && { options, item: null };
    }
    if (this.chosen().length !== 1 || !only || only.kind === 'ink' || only.fixed) return null;
    const options = optionsOf(only.kind);
    return options && { options, item: only };
  });
  protected readonly kindInputs = computed(() => {
    const change: KindOptions['change'] = (to) =>
      this.selectionCommand.emit({ kind: 'traits', to });
    return { item: this.kindOptions()?.item ?? null, change };
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
    const tool = tools.tool();
    const marking = tool === 'highlighter';
    const chosen = marking
      ? tools.highlighter().ink
      : tool === 'shape'
        ? tools.figure().ink
        : tool === 'mark'
          ? tools.mark().ink
          : tool === 'text' || tool === 'slip'
            ? tools.text().ink
            : tool === 'formula'
              ? tools.formula().ink
              : tools.pen().ink;
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
      : (this.shapeStyle()?.width ?? tools.pen().width);
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
      (kindOfTool(this.tools().tool())?.colour ?? null) !== null ||
      this.coloursChosen(),
  );
  protected readonly hasWidth = computed(
    () => ['pen', 'highlighter'].includes(this.tools().tool()) || this.shapeStyle() !== null,
  );

  /** Whether a tool can be used just now: to move and to show needs no pen. */
  protected usable(tool: Tool): boolean {
    if (tool === 'hand') return true;
    if (tool === 'pointer') return this.points();
    return tool === 'lamp' ? this.lights() : this.enabled();
  }

  protected chooseInk(name: string): void {
    const tools = this.tools();
    const ink = name as InkName;
    if (this.draft()) return this.styled.emit({ ink });
    switch (tools.tool()) {
      case 'highlighter':
        return tools.highlighter.update((pen) => ({ ...pen, ink: name as HighlightName }));
      case 'shape':
        return tools.figure.update((figure) => ({ ...figure, ink }));
      case 'mark':
        return tools.mark.update((mark) => ({ ...mark, ink }));
      case 'text':
      case 'slip':
        return this.styled.emit({ ink });
      case 'formula':
        return this.formula.emit({ ink });
      case 'select':
        return this.selectionCommand.emit({ kind: 'colour', colour: inkColour(ink) });
      default:
        return tools.pen.update((pen) => ({ ...pen, ink }));
    }
  }

  protected chooseWidth(width: number): void {
    const tools = this.tools();
    if (tools.tool() === 'highlighter') tools.highlighter.update((pen) => ({ ...pen, width }));
    else if (this.shapeStyle()) this.styleShapes({ width });
    else tools.pen.update((pen) => ({ ...pen, width }));
  }

  /** Figures are drawn like this: those that are chosen, or the next. */
  protected styleShapes(to: ShapeStyle): void {
    const { tool, figure } = this.tools();
    if (tool() === 'shape') figure.update((now) => ({ ...now, ...to }));
    else this.selectionCommand.emit({ kind: 'figure', to });
  }

  /** Whoever is writing goes on writing while the tools are used; a list has to be opened, though. */
  protected keepWriting(event: MouseEvent): void {
    if (this.draft() && !(event.target as Element).closest('select')) event.preventDefault();
  }

  protected insertFiles(field: HTMLInputElement): void {
    const files = [...(field.files ?? [])];
    field.value = '';
    if (files.length > 0) this.pictures.emit(files);
  }

  protected changeSide(): void {
    this.tools().side.update((side) => (side === 'left' ? 'right' : 'left'));
  }
}
