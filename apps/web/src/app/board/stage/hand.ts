import type { Board, Item, Page } from '@cuaderno/core/board';
import type { Lamp, Place } from '@cuaderno/core/features';
import type { Frame, Point } from '@cuaderno/core/geometry';
import type { Id } from '@cuaderno/core/id';
import type { InkStyle } from '@cuaderno/core/ink';
import type { Tool } from '../tool/tool';
import type { Camera } from './camera';
import type { Drawn } from '../kinds/drawn';
import type { Laid } from '../kinds/kind';
import { editBy, kindOfTool } from '../kinds/register';
import { Laying } from './laying';

import type { Placed } from './layout';
import type { DragPreview, PointerTool } from './pointer-tool';
import { TextPlacing } from './pointing';
import { Rubbing } from './rubbing';
import type { Cut } from './rubbing';
import { Selecting } from './selecting';
import type { Selection, SelectionView } from './selecting';
import { LampTool, PointerDot } from './showing-tools';
import { Writing } from './writing';
import type { Erased, FinishedStroke, StrokePiece } from './writing';

/** What the tools in hand need to know of the stage, at the moment. */
export interface HandSurface {
  camera(): Camera;
  /** Pages in the window on which this person may light the lamp, write, and point. */
  lightable(): readonly Placed[];
  writable(): readonly Placed[];
  pointable(): readonly Placed[];
  page(id: Id): Page | undefined;
  tool(): Tool;
  style(): InkStyle;
  /** What is laid where the tool in hand has drawn so far. */
  lay(drawn: Drawn): Laid | null;
  mayErase(): (item: Item) => boolean;
  mayChange(item: Item): boolean;
  rubs(): boolean;
  lasso(): boolean;
  cropping(): boolean;
  leavesArrow(): boolean;
  lamp(): Lamp | null;
  lampShape(): Lamp['shape'];
  /** What is written in place just now. */
  hiding(): DragPreview | null;
}

/** What is done with them. */
export interface HandNews {
  drawn(stroke: FinishedStroke): void;
  piece(piece: StrokePiece): void;
  givenUp(stroke: Id): void;
  erased(what: Erased): void;
  cut(cut: Cut): void;
  pointed(at: Place | null): void;
  arrowed(at: Place): void;
  lit(lamp: Lamp, final: boolean): void;
  chose(selection: Selection | null): void;
  placed(selection: Selection, from: Frame, to: Frame): void;
  redrawn(selection: Selection, to: object): void;
  laid(page: Id, item: Laid): void;
  wrote(page: Id, at: Point, item: Item | null): void;
  /** Something under way, or something carried, looks different now. */
  liveChanged(): void;
  carriedChanged(): void;
}

/** All tools that a pointer can have in hand on the stage, and which of them it has. */
export class Hand {
  private readonly writing: Writing;
  private readonly rubbing: Rubbing;
  private readonly dot: PointerDot;
  private readonly lamp: LampTool;
  private readonly selecting: Selecting;
  private readonly laying: Laying;
  private readonly pointing: TextPlacing;

  constructor(
    private readonly surface: HandSurface,
    news: HandNews,
  ) {
    const { camera, lightable, writable, pointable, tool, style, mayErase } = surface;
    const onPages = { camera, seen: writable };
    this.writing = new Writing(
      { ...onPages, tool, style, mayErase },
      { ...news, changed: () => news.liveChanged() },
    );
    this.rubbing = new Rubbing({ ...onPages, mayErase }, (cut) => news.cut(cut));
    this.dot = new PointerDot(
      { camera, seen: pointable, leaves: surface.leavesArrow },
      (at) => news.pointed(at),
      (at) => news.arrowed(at),
    );
    this.lamp = new LampTool(
      { camera, seen: lightable, lamp: surface.lamp, shape: surface.lampShape },
      (lamp, final) => news.lit(lamp, final),
    );
    this.selecting = new Selecting(
      {
        ...onPages,
        page: surface.page,
        abilities: surface.mayChange,
        lasso: surface.lasso,
        cropping: surface.cropping,
      },
      {
        chose: (selection) => news.chose(selection),
        placed: (selection, from, to) => news.placed(selection, from, to),
        drawn: (selection, to) => news.redrawn(selection, to),
        changed: () => news.carriedChanged(),
      },
    );
    this.laying = new Laying(
      {
        ...onPages,
        lay: (drawn) => surface.lay(drawn),
        edit: (item) => editBy(tool(), item),
        abilities: (item) => surface.mayChange(item),
      },
      {
        laid: (page, item) => news.laid(page, item),
        edited: (page, id, to) => news.redrawn({ page, ids: [id] }, to),
        changed: () => news.carriedChanged(),
      },
    );
    this.pointing = new TextPlacing(
      { ...onPages, abilities: surface.mayChange },
      (page, at, item) => news.wrote(page, at, item),
    );
  }

  /** What a pointer that comes down works with. */
  get inHand(): PointerTool {
    switch (this.surface.tool()) {
      case 'pointer':
        return this.dot;
      case 'lamp':
        return this.lamp;
      case 'select':
        return this.selecting;
      case 'eraser':
        return this.surface.rubs() ? this.rubbing : this.writing;
      default: {
        const kind = kindOfTool(this.surface.tool());
        if (!kind) return this.writing;
        return kind.lay ? this.laying : this.pointing;
      }
    }
  }

  /** Whether what is in hand shows things, and writes nothing. */
  get shows(): boolean {
    const tool = this.surface.tool();
    return tool === 'pointer' || tool === 'lamp';
  }

  /** Lines that are not on the board yet. */
  underWay(): ReturnType<Writing['underWay']> {
    return this.writing.underWay();
  }

  lifted(): DragPreview | null {
    return this.selecting.lifted() ?? this.laying.lifted() ?? this.surface.hiding();
  }

  selection(): SelectionView | null {
    return this.selecting.view();
  }

  choose(selection: Selection | null): void {
    this.selecting.choose(selection);
  }

  /** Opens the text or formula at a place of the window, if one is there. */
  open(sample: Point): void {
    this.pointing.open(sample);
  }

  /** A mouse or a pen moves over the page without touching it. */
  over(sample: Point): void {
    if (this.surface.tool() === 'pointer' && !this.surface.leavesArrow()) this.dot.over(sample);
  }

  /** Nothing is pointed at any more. */
  off(): void {
    this.dot.off();
  }

  /** The board has changed: what has arrived on it is no longer under way. */
  settle(board: Board): void {
    this.writing.settle(board);
    this.rubbing.settle(board);
    this.selecting.settle();
    this.laying.settle();
  }

  close(): void {
    this.dot.off();
    this.writing.close();
  }
}
