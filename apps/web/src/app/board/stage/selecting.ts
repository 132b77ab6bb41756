import { drawnOn } from '@cuaderno/core/board';
import {
  cropTo,
  frameOf,
  gridOf,
  itemAt,
  itemBounds,
  itemsInBox,
  itemsInLasso,
  inSight,
  placed as itemsPlaced,
  snap,
  wholeGroups,
} from '@cuaderno/core/edits';
import {
  bounds,
  compose,
  distance,
  frameBounds,
  frameContains,
  frameMatrix,
  inverse,
  MIN_FRAME,
} from '@cuaderno/core/geometry';
import type { Item, Page } from '@cuaderno/core/board';
import type { Guide } from '@cuaderno/core/edits';
import type { Frame, Point, Rect } from '@cuaderno/core/geometry';
import type { Id } from '@cuaderno/core/id';
import { toBoard } from './camera';
import type { Camera } from './camera';
import type { Sample } from './gestures';
import { handlesOf, isLine, sized, stretches, turnTo } from './handles';
import type { Handle } from './handles';
import type { Placed } from './layout';
import { lineBetween } from '../kinds/drawn';
import { pageUnder } from './pointer-tool';
import type { DragPreview, PointerTool } from './pointer-tool';

/** How near a touch must come to a handle and to an item, and an item to what it snaps to; CSS px. */
const HANDLE = 18;
const NEAR = 6;
const SNAP = 6;
/** How far a finger may move and still have meant a touch, in CSS px. */
const STILL = 4;

/** What is chosen: items of one page. */
export interface Selection {
  readonly page: Id;
  readonly ids: readonly Id[];
}

export interface SelectSurface {
  camera(): Camera;
  seen(): readonly Placed[];
  page(id: Id): Page | undefined;
  /** Whether this person may choose an item. */
  abilities(item: Item): boolean;
  /** Whether a drag over nothing draws a lasso, and not a box. */
  lasso(): boolean;
  /** Whether the sides of a picture cut it. */
  cropping(): boolean;
}

export interface SelectNews {
  chose(selection: Selection | null): void;
  /** What is chosen was moved, sized or turned. */
  placed(selection: Selection, from: Frame, to: Frame): void;
  /** A line's ends were moved, or a picture was cropped: this is what it has now. */
  drawn(selection: Selection, to: object): void;
  changed(): void;
}

type Gesture =
  | { readonly kind: 'box'; readonly from: Point; to: Point; readonly adds: readonly Id[] }
  | { readonly kind: 'lasso'; readonly points: Point[]; readonly adds: readonly Id[] }
  | {
      readonly kind: 'carry';
      readonly handle: Handle | null;
      readonly items: readonly Item[];
      readonly ids: ReadonlySet<Id>;
      readonly from: Frame;
      readonly start: Point;
      to: Frame;
      guides: readonly Guide[];
      moved: boolean;
    };

/** What is drawn over the page while things are chosen. */
export interface SelectionView {
  readonly page: Id;
  readonly frame: Frame | null;
  /** Whether it can't be moved. */
  readonly fixed: boolean;
  readonly handles: readonly Handle[];
  readonly guides: readonly Guide[];
  readonly box: Rect | null;
  readonly lasso: readonly Point[];
}

/** Chooses items by touch, box or lasso, and moves, sizes and turns what is chosen. */
export class Selecting implements PointerTool {
  private selection: Selection | null = null;
  private gesture: Gesture | null = null;
  private gesturePage: Placed | null = null;
  /** Where the end of a line is drawn to just now. */
  private endAt: Point | null = null;
  /** What was put down, until the board shows it there. */
  private settling: DragPreview | null = null;

  constructor(
    private readonly surface: SelectSurface,
    private readonly news: SelectNews,
  ) {}

  choose(selection: Selection | null): void {
    this.selection = selection && selection.ids.length > 0 ? selection : null;
    this.gesture = null;
    this.news.changed();
  }

  /** The board has changed: what was put down is there, what is gone is no longer chosen. */
  settle(): void {
    this.settling = null;
    const { selection } = this;
    if (!selection) return;
    const items = this.surface.page(selection.page)?.items;
    const ids = selection.ids.filter((id) => items?.get(id)?.removed === null);
    if (ids.length === selection.ids.length) return;
    this.choose({ ...selection, ids });
    this.news.chose(this.selection);
  }

  lifted(): DragPreview | null {
    const { gesture } = this;
    if (gesture?.kind !== 'carry' || !gesture.moved) return this.settling;
    return this.liftedBy(gesture);
  }

  private liftedBy(gesture: Extract<Gesture, { kind: 'carry' }>): DragPreview {
    const { ids, from, to } = gesture;
    const map = compose(inverse(frameMatrix(from)), frameMatrix(to));
    return { page: this.gesturePage!.page.id, items: this.carried(gesture), ids, map };
  }

  view(): SelectionView | null {
    const { gesture, selection } = this;
    const page = this.gesturePage?.page.id ?? selection?.page;
    if (!page || (!gesture && !selection)) return null;
    const items = this.chosen();
    const frame = gesture?.kind === 'carry' ? gesture.to : selection ? this.frame(selection) : null;
    const { zoom } = this.surface.camera();
    return {
      page,
      frame: isLine(items) ? null : frame,
      fixed: items.some((item) => item.kind !== 'ink' && item.fixed),
      handles: frame && gesture === null ? this.handles(items, frame, zoom) : [],
      guides: gesture?.kind === 'carry' ? gesture.guides : [],
      box: gesture?.kind === 'box' ? bounds([gesture.from, gesture.to]) : null,
      lasso: gesture?.kind === 'lasso' ? gesture.points : [],
    };
  }

  down(sample: Sample): boolean {
    const camera = this.surface.camera();
    const hidden = this.takeHold(sample, camera);
    if (hidden) return true;
    const under = pageUnder(camera, this.surface.seen(), sample);
    if (!under) {
      this.tell(null);
      return false;
    }
    const { placed, p } = under;
    const page = this.surface.page(placed.page.id)!;
    this.gesturePage = placed;
    const before = this.selection?.page === page.id ? this.selection.ids : [];
    const item = itemAt(this.choosable(page), p, NEAR / camera.zoom);
    if (item && sample.adds && before.includes(item.id)) {
      const whole = new Set(wholeGroups(page, [item.id]));
      this.tell({ page: page.id, ids: before.filter((id) => !whole.has(id)) });
      return true;
    }
    if (item) {
      if (!before.includes(item.id))
        this.tell({
          page: page.id,
          ids: wholeGroups(page, sample.adds ? [...before, item.id] : [item.id]),
        });
      this.carry(null, p);
      return true;
    }
    const adds = sample.adds ? before : [];
    if (!sample.adds) this.tell(null);
    this.gesture = this.surface.lasso()
      ? { kind: 'lasso', points: [p], adds }
      : { kind: 'box', from: p, to: p, adds };
    this.news.changed();
    return true;
  }

  move(samples: readonly Sample[]): void {
    const { gesture, gesturePage } = this;
    if (!gesture || !gesturePage) return;
    const camera = this.surface.camera();
    for (const sample of samples) {
      const at = toBoard(camera, sample);
      const p = { x: at.x - gesturePage.x, y: at.y - gesturePage.y };
      if (gesture.kind === 'box') gesture.to = p;
      else if (gesture.kind === 'lasso') gesture.points.push(p);
      else this.carryTo(gesture, p, sample, camera.zoom);
    }
    this.news.changed();
  }

  up(): void {
    const { gesture, gesturePage } = this;
    this.gesture = null;
    if (!gesture || !gesturePage) return;
    const page = this.surface.page(gesturePage.page.id);
    if (!page) return;
    if (gesture.kind === 'carry') this.putDown(gesture);
    else {
      const there = this.choosable(page);
      const found =
        gesture.kind === 'box'
          ? itemsInBox(there, bounds([gesture.from, gesture.to])!)
          : itemsInLasso(there, gesture.points);
      this.tell({ page: page.id, ids: [...new Set([...gesture.adds, ...found])] });
    }
    this.gesturePage = null;
    this.news.changed();
  }

  lost(): void {
    this.gesture = null;
    this.gesturePage = null;
    this.news.changed();
  }

  private tell(selection: Selection | null): void {
    this.selection = selection && selection.ids.length > 0 ? selection : null;
    this.news.chose(this.selection);
    this.news.changed();
  }

  /** The page with what may be chosen on it: what else lies there is as good as printed. */
  private choosable(page: Page): Page {
    const items = [...page.items].filter(
      ([, item]) => item.removed || this.surface.abilities(item),
    );
    return items.length === page.items.size ? page : { ...page, items: new Map(items) };
  }

  private chosen(): Item[] {
    const { selection } = this;
    const page = selection && this.surface.page(selection.page);
    const ids = new Set(selection?.ids);
    return page ? drawnOn(page).filter(({ id }) => ids.has(id)) : [];
  }

  private frame({ page, ids }: Selection): Frame | null {
    const here = this.surface.page(page);
    return here ? frameOf(here, ids) : null;
  }

  /** Takes hold of what is chosen: by a handle, or anywhere within its frame. */
  private takeHold(sample: Sample, camera: Camera): boolean {
    const { selection } = this;
    const placed = this.surface.seen().find(({ page }) => page.id === selection?.page);
    const frame = selection && this.frame(selection);
    if (!placed || !frame) return false;
    const at = toBoard(camera, sample);
    const p = { x: at.x - placed.x, y: at.y - placed.y };
    const items = this.chosen();
    const handle = this.handles(items, frame, camera.zoom)
      .map((one) => ({ one, far: distance(one.at, p) * camera.zoom }))
      .filter(({ far }) => far <= HANDLE)
      .sort((a, b) => a.far - b.far)[0]?.one;
    const within = items.length > 1 && frameContains(frame, p);
    if (!handle && (!within || sample.adds)) return false;
    this.gesturePage = placed;
    this.carry(handle ?? null, p);
    return true;
  }

  private carry(handle: Handle | null, start: Point): void {
    const items = this.chosen();
    const from = this.selection && this.frame(this.selection);
    // What is fixed can be chosen, to loosen it, but not moved.
    if (!from || items.some((item) => item.kind !== 'ink' && item.fixed)) return;
    const ids = new Set(items.map(({ id }) => id));
    this.gesture = {
      kind: 'carry',
      handle,
      items,
      ids,
      from,
      start,
      to: from,
      guides: [],
      moved: false,
    };
  }

  private carryTo(
    gesture: Extract<Gesture, { kind: 'carry' }>,
    p: Point,
    sample: Sample,
    zoom: number,
  ): void {
    const { handle, from, start, items } = gesture;
    if (!gesture.moved && distance(p, start) * zoom < STILL) return;
    gesture.moved = true;
    if (!handle) {
      const to = { ...from, x: from.x + p.x - start.x, y: from.y + p.y - start.y };
      const { dx, dy, guides } = snap(frameBounds(to), this.field(gesture.ids), SNAP / zoom);
      gesture.to = { ...to, x: to.x + dx, y: to.y + dy };
      gesture.guides = guides;
    } else if (handle.kind === 'turn') {
      gesture.to = { ...from, turn: turnTo(from, p) };
    } else if (handle.kind === 'size') {
      const cropping = this.cropped(items) !== null;
      const even =
        !cropping &&
        handle.across !== 0 &&
        handle.down !== 0 &&
        (!stretches(items) || sample.adds || items[0]!.kind === 'text');
      gesture.to = sized(from, handle, p, even, Math.max(MIN_FRAME, 4 / zoom));
    } else {
      gesture.to = from;
      this.endAt = p;
    }
  }

  /** A picture that is being cropped is taken hold of by its sides too, but not turned. */
  private handles(items: readonly Item[], frame: Frame, zoom: number): Handle[] {
    const cropping = this.cropped(items) !== null;
    return handlesOf(items, frame, zoom, cropping).filter(
      ({ kind }) => !cropping || kind === 'size',
    );
  }

  private cropped(items: readonly Item[]): (Item & { kind: 'picture' }) | null {
    const [only] = items;
    return this.surface.cropping() && items.length === 1 && only?.kind === 'picture' ? only : null;
  }

  private carried({ handle, items, from, to }: Extract<Gesture, { kind: 'carry' }>): Item[] {
    if (handle?.kind === 'end' && isLine(items))
      return [{ ...items[0], ...this.lineTo(items[0], handle.index) }];
    const picture = this.cropped(items);
    if (picture && handle?.kind === 'size') return [{ ...picture, ...cropTo(picture, handle, to) }];
    const others = items.filter((item) => item.kind !== 'ink');
    const placed = itemsPlaced(others, from, to, items.length === 1);
    return [...placed, ...items.filter((item) => item.kind === 'ink')];
  }

  private lineTo(line: Item, index: number): { frame: Frame; points: [number, number][] } {
    const ends = handlesOf([line], frameOfLine(line), 1).map(({ at }) => at);
    if (this.endAt) ends[index] = this.endAt;
    return lineBetween(ends);
  }

  private putDown(gesture: Extract<Gesture, { kind: 'carry' }>): void {
    const { selection } = this;
    if (!gesture.moved || !selection) return;
    const { handle, from, to, items } = gesture;
    this.settling = this.liftedBy(gesture);
    if (handle?.kind === 'end' && isLine(items))
      this.news.drawn(selection, this.lineTo(items[0], handle.index));
    else if (this.cropped(items) && handle?.kind === 'size')
      this.news.drawn(selection, cropTo(this.cropped(items)!, handle, to));
    else this.news.placed(selection, from, to);
    this.endAt = null;
  }

  private field(moving: ReadonlySet<Id>): Parameters<typeof snap>[1] {
    const page = this.surface.page(this.gesturePage!.page.id)!;
    const others = inSight(page)
      .filter((item) => item.kind !== 'ink' && !moving.has(item.id))
      .map(itemBounds);
    return { page, others, grid: gridOf(page.paper) };
  }
}

function frameOfLine(line: Item): Frame {
  return line.kind === 'ink' ? { x: 0, y: 0, width: 1, height: 1, turn: 0 } : line.frame;
}
