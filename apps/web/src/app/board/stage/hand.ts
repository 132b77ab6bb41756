import type { Board, Item, Page } from '@cuaderno/core/board';
import type { Lamp, Place } from '@cuaderno/core/features';
import type { Point } from '@cuaderno/core/geometry';
import type { Id } from '@cuaderno/core/id';
import type { Camera } from './camera';
import { editBy, kindOfTool } from '../kinds/register';
import { Laying } from './laying';
import type { Placed } from './layout';
import type { DragPreview, PointerTool } from './pointer-tool';
import { TextPlacing } from './pointing';
import { Rubbing } from './rubbing';
import { Selecting } from './selecting';
import type { StageWork } from './stage-work';
import type { Selection, SelectionView } from './selecting';
import { LampTool, PointerDot } from './showing-tools';
import { Writing } from './writing';

/** What the tools in hand need to know of the stage, at the moment. */
export interface HandSurface {
  camera(): Camera;
  /** Pages in the window on which this person may light the lamp, write, and point. */
  lightable(): readonly Placed[];
  writable(): readonly Placed[];
  pointable(): readonly Placed[];
  page(id: Id): Page | undefined;
  lamp(): Lamp | null;
  work(): StageWork;
}

/** What the stage is told; all that lasts goes to who works there. */
export interface HandNews {
  pointed(at: Place | null): void;
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
    const { camera, lightable, writable, pointable, work } = surface;
    const onPages = { camera, seen: writable };
    const mayErase = (): ReturnType<StageWork['mayErase']> => work().mayErase();
    const mayChange = (item: Item): boolean => work().mayChange()(item);
    this.writing = new Writing(
      { ...onPages, tool: () => work().tool(), style: () => work().style(), mayErase },
      {
        drawn: (stroke) => work().drawn(stroke),
        piece: (piece) => work().piece(piece),
        givenUp: (stroke) => work().givenUp(stroke),
        erased: (what) => work().erased(what),
        changed: () => news.liveChanged(),
      },
    );
    this.rubbing = new Rubbing({ ...onPages, mayErase }, (cut) => work().cut(cut));
    this.dot = new PointerDot(
      { camera, seen: pointable, leaves: () => work().leavesArrow() },
      (at) => news.pointed(at),
      (at) => work().arrowed(at),
    );
    this.lamp = new LampTool(
      { camera, seen: lightable, lamp: surface.lamp, shape: () => work().lampShape() },
      (lamp, final) => work().lit(lamp, final),
    );
    this.selecting = new Selecting(
      {
        ...onPages,
        page: surface.page,
        abilities: mayChange,
        lasso: () => work().lasso(),
        cropping: () => work().cropping(),
      },
      {
        chose: (selection) => work().chose(selection),
        placed: (selection, from, to) => work().placed(selection, from, to),
        drawn: (selection, to) => work().redrawn(selection, to),
        changed: () => news.carriedChanged(),
      },
    );
    this.laying = new Laying(
      {
        ...onPages,
        lay: (drawn) => work().lay(drawn),
        edit: (item) => editBy(work().tool(), item),
        abilities: mayChange,
      },
      {
        laid: (page, item) => work().laid(page, item),
        edited: (page, id, to) => work().redrawn({ page, ids: [id] }, to),
        changed: () => news.carriedChanged(),
      },
    );
    this.pointing = new TextPlacing({ ...onPages, abilities: mayChange }, (page, at, item) =>
      work().wrote(page, at, item),
    );
  }

  /** What a pointer that comes down works with. */
  get inHand(): PointerTool {
    switch (this.surface.work().tool()) {
      case 'pointer':
        return this.dot;
      case 'lamp':
        return this.lamp;
      case 'select':
        return this.selecting;
      case 'eraser':
        return this.surface.work().rubs() ? this.rubbing : this.writing;
      default: {
        const kind = kindOfTool(this.surface.work().tool());
        if (!kind) return this.writing;
        return kind.lay ? this.laying : this.pointing;
      }
    }
  }

  /** Whether what is in hand shows things, and writes nothing. */
  get shows(): boolean {
    const tool = this.surface.work().tool();
    return tool === 'pointer' || tool === 'lamp';
  }

  /** Lines that are not on the board yet. */
  underWay(): ReturnType<Writing['underWay']> {
    return this.writing.underWay();
  }

  lifted(): DragPreview | null {
    return this.selecting.lifted() ?? this.laying.lifted() ?? this.surface.work().hiding();
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
    const work = this.surface.work();
    if (work.tool() === 'pointer' && !work.leavesArrow()) this.dot.over(sample);
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
