import { inSight } from '@cuaderno/core/edits';
import { distance } from '@cuaderno/core/geometry';
import { newId } from '@cuaderno/core/id';
import { isItemAt } from '@cuaderno/core/kinds';
import type { Item, Page } from '@cuaderno/core/board';
import type { Point } from '@cuaderno/core/geometry';
import type { Id } from '@cuaderno/core/id';
import type { ItemTraits } from '@cuaderno/core/ops';
import type { Drawn } from '../kinds/drawn';
import type { Laid } from '../kinds/kind';
import { toBoard } from './camera';
import type { Camera } from './camera';
import type { Sample } from './gestures';
import type { Placed } from './layout';
import { pageUnder } from './pointer-tool';
import type { DragPreview, PointerTool } from './pointer-tool';

/** A drag shorter than this, in CSS px, is a touch. */
const TOUCH = 6;
/** How near a touch must come to what the tool in hand edits, in CSS px. */
const NEAR = 8;

export interface LaySurface {
  camera(): Camera;
  seen(): readonly Placed[];
  /** What is laid where the tool in hand has drawn so far; `null` while that is nothing yet. */
  lay(drawn: Drawn): Laid | null;
  /** How the tool in hand changes an item that lies there; `null` where it lays a new one over it. */
  edit(item: Item): ((from: Point, to: Point) => ItemTraits | null) | null;
  /** Whether this person may change it. */
  abilities(item: Item): boolean;
}

export interface LayNews {
  laid(page: Id, item: Laid): void;
  edited(page: Id, item: Id, to: ItemTraits): void;
  changed(): void;
}

const NONE: ReadonlySet<Id> = new Set();

/** An item that the tool in hand edits, and how. */
interface Edited {
  readonly item: Item;
  readonly ids: ReadonlySet<Id>;
  readonly edit: (from: Point, to: Point) => ItemTraits | null;
}

/** Lays items where they are drawn, and edits those that lie there, as the tool in hand does. */
export class Laying implements PointerTool {
  private under: {
    readonly placed: Placed;
    readonly from: Point;
    readonly points: Point[];
    readonly edited: Edited | null;
  } | null = null;
  /** What was laid last, until the board shows it. */
  private settling: DragPreview | null = null;
  private readonly id = newId();

  constructor(
    private readonly surface: LaySurface,
    private readonly news: LayNews,
  ) {}

  lifted(): DragPreview | null {
    const { under } = this;
    if (!under) return this.settling;
    const page = under.placed.page.id;
    if (under.edited) {
      const { item, ids, edit } = under.edited;
      const to = edit(under.from, under.points.at(-1)!);
      return to ? { page, items: [{ ...item, ...to } as Item], ids } : this.settling;
    }
    const item = this.item(false);
    return item ? { page, items: [this.asItem(item)], ids: NONE } : this.settling;
  }

  settle(): void {
    this.settling = null;
  }

  down(sample: Sample): boolean {
    const camera = this.surface.camera();
    const found = pageUnder(camera, this.surface.seen(), sample);
    if (!found) return false;
    const { placed, p } = found;
    this.under = { placed, from: p, points: [p], edited: this.editedAt(placed.page, p) };
    return true;
  }

  move(samples: readonly Sample[]): void {
    const { under } = this;
    if (!under) return;
    const camera = this.surface.camera();
    for (const sample of samples) {
      const at = toBoard(camera, sample);
      under.points.push({ x: at.x - under.placed.x, y: at.y - under.placed.y });
    }
    this.news.changed();
  }

  up(): void {
    const { under } = this;
    if (under?.edited) this.endEdit(under.placed.page.id, under.edited, under.from, under.points);
    const item = under && !under.edited ? this.item(true) : null;
    this.under = null;
    if (under && item) {
      const page = under.placed.page.id;
      this.settling = { page, items: [this.asItem(item)], ids: NONE };
      this.news.laid(page, item);
    }
    this.news.changed();
  }

  lost(): void {
    this.under = null;
    this.news.changed();
  }

  /** What the tool in hand edits there, though ink may lie on it. */
  private editedAt(page: Page, p: Point): Edited | null {
    const slack = NEAR / this.surface.camera().zoom;
    for (const item of [...inSight(page)].reverse()) {
      if (item.kind === 'ink' || !isItemAt(item, p, slack) || !this.surface.abilities(item))
        continue;
      const edit = this.surface.edit(item);
      if (edit) return { item, edit, ids: new Set([item.id]) };
    }
    return null;
  }

  private endEdit(page: Id, { item, edit }: Edited, from: Point, points: readonly Point[]): void {
    const to = edit(from, points.at(-1)!);
    if (to) this.news.edited(page, item.id, to);
  }

  private asItem(item: Laid): Item {
    return { ...item, id: this.id, order: 'a0', by: this.id, at: 0, lesson: null, removed: null };
  }

  /** What has been drawn so far. @param done whether the pointer has left: then a touch counts too */
  private item(done: boolean): Laid | null {
    const { from, points } = this.under!;
    const { zoom } = this.surface.camera();
    const touch = points.every((p) => distance(p, from) * zoom < TOUCH);
    return touch && !done ? null : this.surface.lay({ from, points, zoom, touch });
  }
}
