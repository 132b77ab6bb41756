import { pileAt } from '@cuaderno/core/board';
import { strokeOf } from '@cuaderno/core/edits';
import { newId } from '@cuaderno/core/id';
import { encodeStroke, MAX_POINTS, thinPoints, touches } from '@cuaderno/core/ink';
import { isItemTouched } from '@cuaderno/core/kinds';
import type { Board, Item } from '@cuaderno/core/board';
import type { Point } from '@cuaderno/core/geometry';
import type { Id } from '@cuaderno/core/id';
import type { InkPoint, InkStyle } from '@cuaderno/core/ink';
import type { Tool } from '../tool/tool';
import { toBoard } from './camera';
import type { Camera } from './camera';
import type { Sample } from './gestures';
import type { Placed } from './layout';

/** A finished line, ready to be an operation. */
export interface FinishedStroke {
  readonly id: Id;
  readonly page: Id;
  readonly ink: Uint8Array;
}

/** The next points of a line under way; `start` comes with the first. */
export interface StrokePiece {
  readonly stroke: Id;
  readonly start?: { readonly page: Id; readonly style: InkStyle };
  readonly points: readonly InkPoint[];
}

/** What the eraser has touched; all of one sweep have the same `gesture`. */
export interface Erased {
  readonly page: Id;
  readonly items: Id[];
  readonly gesture: object;
}

/** What writing needs to know of the stage, at the moment. */
export interface WritingSurface {
  camera(): Camera;
  seen(): readonly Placed[];
  tool(): Tool;
  style(): InkStyle;
  mayErase(): (item: Item) => boolean;
}

/** What writing tells. */
export interface WritingNews {
  drawn(stroke: FinishedStroke): void;
  piece(piece: StrokePiece): void;
  /** A line under way was given up. */
  givenUp(stroke: Id): void;
  erased(what: Erased): void;
  /** Something under way looks different now. */
  changed(): void;
}

interface OwnStroke {
  readonly id: Id;
  readonly placed: Placed;
  readonly style: InkStyle;
  readonly points: InkPoint[];
  readonly began: number;
  sent: number;
}

/** Radius of the eraser, in CSS px. */
export const ERASER = 9;
/** Longest line in one piece; a longer one goes on as the next. */
const PIECE = MAX_POINTS / 4;

/** One's own pen: makes strokes of samples, and takes away what the eraser sweeps over. */
export class Writing {
  private own: OwnStroke | null = null;
  /** Finished lines that are not on the board yet: the board is a frame behind. */
  private drying: OwnStroke[] = [];
  private sweep: { gesture: object; last: Point; gone: Set<Id> } | null = null;
  private sendFrame = 0;

  constructor(
    private readonly surface: WritingSurface,
    private readonly news: WritingNews,
  ) {}

  /** Lines that are not on the board, with the page each is on. */
  underWay(): { page: Id; style: InkStyle; points: readonly InkPoint[] }[] {
    return [...this.drying, ...(this.own ? [this.own] : [])].map(({ placed, style, points }) => ({
      page: placed.page.id,
      style,
      points,
    }));
  }

  /** The board has changed: what has arrived on it is no longer under way. */
  settle(board: Board): void {
    this.drying = this.drying.filter(
      ({ id, placed }) => !board.pages.get(placed.page.id)?.items.has(id),
    );
  }

  down(sample: Sample): boolean {
    if (this.surface.tool() === 'eraser') {
      this.sweep = { gesture: {}, last: toBoard(this.surface.camera(), sample), gone: new Set() };
      this.sweepTo(sample);
      return true;
    }
    const p = toBoard(this.surface.camera(), sample);
    const placed = this.surface
      .seen()
      .find(
        ({ page, x, y }) => p.x >= x && p.y >= y && p.x <= x + page.width && p.y <= y + page.height,
      );
    if (!placed) return false;
    this.own = {
      id: newId(),
      placed,
      style: this.surface.style(),
      points: [{ x: p.x - placed.x, y: p.y - placed.y, pressure: sample.pressure, time: 0 }],
      began: sample.time,
      sent: 0,
    };
    this.sendSoon();
    this.news.changed();
    return true;
  }

  move(samples: readonly Sample[]): void {
    if (this.sweep) {
      for (const sample of samples) this.sweepTo(sample);
      return;
    }
    const { own } = this;
    if (!own) return;
    const camera = this.surface.camera();
    for (const sample of samples) {
      const p = toBoard(camera, sample);
      const last = own.points[own.points.length - 1]!;
      const next: InkPoint = {
        x: p.x - own.placed.x,
        y: p.y - own.placed.y,
        pressure: sample.pressure,
        time: Math.max(last.time, Math.round(sample.time - own.began)),
      };
      if (next.x !== last.x || next.y !== last.y) own.points.push(next);
    }
    this.sendSoon();
    this.news.changed();
    if (own.points.length >= PIECE) this.goOn(own);
  }

  up(): void {
    this.sweep = null;
    const own = this.end();
    if (!own) return;
    this.drying.push(own);
    const points = thinPoints(own.points, own.style.width);
    const ink = encodeStroke({ style: own.style, points });
    this.news.drawn({ id: own.id, page: own.placed.page.id, ink });
  }

  lost(): void {
    this.sweep = null;
    const own = this.end();
    if (!own) return;
    this.news.givenUp(own.id);
    this.news.changed();
  }

  /** Stops sending; nothing under way is sent any more. */
  close(): void {
    this.end();
  }

  private end(): OwnStroke | null {
    const { own } = this;
    this.own = null;
    cancelAnimationFrame(this.sendFrame);
    this.sendFrame = 0;
    return own;
  }

  /** Finishes a very long line and begins the next where it ended. */
  private goOn(own: OwnStroke): void {
    this.up();
    const end = own.points[own.points.length - 1]!;
    const began = own.began + end.time;
    this.own = { ...own, id: newId(), points: [{ ...end, time: 0 }], began, sent: 0 };
  }

  /** New points go out once a frame. */
  private sendSoon(): void {
    if (this.sendFrame !== 0) return;
    this.sendFrame = requestAnimationFrame(() => {
      this.sendFrame = 0;
      const { own } = this;
      if (!own || own.sent === own.points.length) return;
      const points = own.points.slice(own.sent);
      const first = own.sent === 0;
      own.sent = own.points.length;
      this.news.piece({
        stroke: own.id,
        points,
        ...(first ? { start: { page: own.placed.page.id, style: own.style } } : {}),
      });
    });
  }

  private sweepTo(sample: Sample): void {
    const { sweep } = this;
    if (!sweep) return;
    const camera = this.surface.camera();
    const to = toBoard(camera, sample);
    const from = sweep.last;
    sweep.last = to;
    const mayErase = this.surface.mayErase();
    for (const { page, x, y } of this.surface.seen()) {
      const a = { x: from.x - x, y: from.y - y };
      const b = { x: to.x - x, y: to.y - y };
      const items = pileAt(page, b)
        .flatMap(({ ink }) => ink)
        .filter(
          (item) =>
            !sweep.gone.has(item.id) && mayErase(item) && isSwept(item, a, b, ERASER / camera.zoom),
        )
        .map(({ id }) => id);
      if (items.length === 0) continue;
      for (const id of items) sweep.gone.add(id);
      this.news.erased({ page: page.id, items, gesture: sweep.gesture });
    }
  }
}

function isSwept(item: Item, a: Point, b: Point, radius: number): boolean {
  return item.kind === 'ink'
    ? touches(strokeOf(item.ink), a, b, radius)
    : isItemTouched(item, a, b, radius);
}
