import { computed, signal } from '@angular/core';
import { drawnOn } from '@cuaderno/core/board';
import {
  alignItems,
  distributeItems,
  frameOf,
  groupItems,
  inSight,
  layCopies,
  nudgeItems,
  orderItems,
  placeItems,
  recognizeShape,
  topOrder,
  traitItems,
  uncropped,
  wholeGroups,
} from '@cuaderno/core/edits';
import { MIN_FRAME } from '@cuaderno/core/geometry';
import { newId } from '@cuaderno/core/id';
import { changeItem } from '@cuaderno/core/ops';
import { keysBetween } from '@cuaderno/core/order';
import type { Board, Item, Page, PlacedItem } from '@cuaderno/core/board';
import type { Edge } from '@cuaderno/core/edits';
import type { Frame } from '@cuaderno/core/geometry';
import type { Id } from '@cuaderno/core/id';
import type { PictureSpec, ShapeSpec } from '@cuaderno/core/kinds';
import type { Change, ItemTraits } from '@cuaderno/core/ops';
import type { BoardSession } from '../../live/board-session';
import type { Laid, TraitsOf } from '../kinds/kind';
import { recoloured, widened } from '../kinds/register';
import { laidOut } from '../kinds/text/laid-out';
import type { PaperSource } from '../drawing/paper-source';
import type { Selection } from '../stage/selecting';

/** A picture on a page. */
export type PictureItem = Extract<PlacedItem, PictureSpec>;

/** What can be done with what is chosen. */
export type SelectionCommand =
  | { readonly kind: 'align'; readonly edge: Edge }
  | { readonly kind: 'distribute'; readonly along: 'across' | 'down' }
  | { readonly kind: 'order'; readonly where: 'front' | 'back' }
  | { readonly kind: 'group'; readonly together: boolean }
  | { readonly kind: 'fix'; readonly fixed: boolean }
  | { readonly kind: 'hide'; readonly hidden: boolean }
  | { readonly kind: 'colour'; readonly colour: string }
  /** How broad their lines are, in points; those that have none stay as they are. */
  | { readonly kind: 'width'; readonly width: number }
  /** Something of their own kind. */
  | { readonly kind: 'traits'; readonly ids: readonly Id[]; readonly to: TraitsOf }
  | { readonly kind: 'crop'; readonly on: boolean }
  | { readonly kind: 'straighten' }
  | { readonly kind: 'describe' }
  | { readonly kind: 'uncrop' }
  | { readonly kind: 'recognize' }
  /** In points. */
  | { readonly kind: 'move'; readonly dx: number; readonly dy: number }
  /** Larger or smaller by a factor, about its middle. */
  | { readonly kind: 'size'; readonly by: number }
  /** Clockwise about its middle, in degrees. */
  | { readonly kind: 'turn'; readonly by: number }
  | { readonly kind: 'duplicate' }
  | { readonly kind: 'picture' }
  | { readonly kind: 'remove' };

/** How far a copy lies from what it was made of, in points. */
const ASIDE = 14;

/** Arranges what is chosen on a board: every command is one step to undo. */
export class Arranging {
  readonly selection = signal<Selection | null>(null);
  /** Items that are chosen, as they are. */
  readonly items = computed<readonly Item[]>(() => {
    const selection = this.selection();
    const page = selection && this.session().board().pages.get(selection.page);
    const ids = new Set(selection?.ids);
    return page ? drawnOn(page).filter(({ id }) => ids.has(id)) : [];
  });

  /** Whether the sides of the picture that is chosen cut it. */
  readonly cropping = signal(false);
  /** The picture that is being straightened, with its page. */
  readonly straightening = signal<{ readonly page: Id; readonly item: PictureItem } | null>(null);
  /** The picture that is being described, with its page. */
  readonly describing = signal<{ readonly page: Id; readonly item: PictureItem } | null>(null);
  /** What to say of what was done last; `null` for nothing. */
  readonly said = signal<string | null>(null);

  constructor(
    private readonly session: () => BoardSession,
    private readonly papers: () => PaperSource,
    /** Where what is made is laid: under the ink, or with it. */
    private readonly layer: () => ShapeSpec['layer'],
    /** Whether this person may choose an item, to change it. */
    private readonly abilities: (item: Item) => boolean,
    /** Shows what is chosen as chosen. */
    private readonly show: (selection: Selection | null) => void,
  ) {}

  do(command: SelectionCommand): void {
    const selection = this.selection();
    if (!selection) return;
    if (command.kind === 'crop') return this.cropping.set(command.on);
    if (command.kind === 'straighten') return this.straighten();
    if (command.kind === 'describe') return this.describe();
    if (command.kind === 'recognize') return this.recognize(selection);
    if (command.kind === 'picture') return void this.copyAsPicture();
    if (command.kind === 'move') return this.nudge(command.dx, command.dy);
    if (command.kind === 'size') return this.reframe((frame) => sized(frame, command.by));
    if (command.kind === 'turn')
      return this.reframe((frame) => ({ ...frame, turn: within(frame.turn + command.by) }));
    if (command.kind === 'duplicate') return this.lay(selection.page, this.items(), ASIDE, ASIDE);
    const { page, ids } = selection;
    this.make(this.changesOf(this.session().board(), page, ids, command));
    if (command.kind === 'remove') this.show(null);
  }

  private async copyAsPicture(): Promise<void> {
    const { copyItemsAsPicture, whyNotCopied } = await import('../page-files/clipboard-picture');
    try {
      await copyItemsAsPicture(this.items(), this.papers());
      this.said.set('It is on the clipboard as a picture.');
    } catch {
      this.said.set(`The browser did not let it onto the clipboard. ${whyNotCopied()}`);
    }
  }

  private describe(): void {
    const selection = this.selection();
    const [only] = this.items();
    if (selection && only?.kind === 'picture')
      this.describing.set({ page: selection.page, item: only });
  }

  /** Says what is to be seen on the picture, for who can't see it. */
  described(alt: string): void {
    const what = this.describing();
    this.describing.set(null);
    const change = what && changeItem(this.session().board(), what.page, what.item.id, { alt });
    if (change) this.make([change]);
  }

  private straighten(): void {
    const selection = this.selection();
    const [only] = this.items();
    if (selection && only?.kind === 'picture' && !only.fixed)
      this.straightening.set({ page: selection.page, item: only });
  }

  /** Puts a picture made of another in its place. */
  straightened(to: { file: string; width: number; height: number }): void {
    const what = this.straightening();
    this.straightening.set(null);
    const now = what && this.page(what.page)?.items.get(what.item.id);
    if (!what || now?.kind !== 'picture' || now.removed) return;
    const frame = inPlaceOf(now.frame, to, this.page(what.page)!);
    const id = newId();
    const { order, layer, alt, hidden, group } = now;
    this.make([
      { kind: 'items.remove', page: what.page, items: [now.id] },
      {
        id,
        kind: 'item.add',
        page: what.page,
        item: {
          kind: 'picture',
          order,
          layer,
          alt,
          hidden,
          group,
          file: to.file,
          frame,
        },
      } as Change,
    ]);
    this.show({ page: what.page, ids: [id] });
  }

  /** Something else is chosen from now on. */
  choose(selection: Selection | null): void {
    this.selection.set(selection);
    this.cropping.set(false);
    this.said.set(null);
  }

  placed({ selection, from, to }: { selection: Selection; from: Frame; to: Frame }): void {
    const { page, ids } = selection;
    const board = this.session().board();
    const [only] = this.items();
    const even = Math.abs(to.width / from.width - to.height / from.height) < 1e-3;
    // A text that was made wider or narrower is broken into other lines.
    if (ids.length === 1 && only?.kind === 'text' && !even) {
      const { frame, lines } = laidOut({ ...only, frame: to });
      this.make(changed(board, page, only, { frame, lines }));
    } else this.make(placeItems(board, page, ids, from, to));
  }

  /** A line was drawn anew. */
  redrawn(selection: Selection, to: object): void {
    const [id] = selection.ids;
    const change = id
      ? changeItem(this.session().board(), selection.page, id, to as ItemTraits)
      : null;
    if (change) this.make([change]);
  }

  laid(page: Id, item: Laid): void {
    const here = this.page(page);
    if (here) this.make([{ kind: 'item.add', page, item: { ...item, order: topOrder(here) } }]);
  }

  /** Lays copies of items on a page, and chooses them. */
  lay(page: Id, items: readonly Item[], dx: number, dy: number): void {
    const here = this.page(page);
    if (!here || items.length === 0) return;
    const { changes, ids } = layCopies(here, items, dx, dy);
    this.make(changes);
    this.show({ page, ids });
  }

  nudge(dx: number, dy: number): void {
    const selection = this.selection();
    if (!selection || this.items().some((item) => item.kind !== 'ink' && item.fixed)) return;
    this.make(nudgeItems(this.session().board(), selection.page, selection.ids, dx, dy));
  }

  /** What is chosen in another frame. */
  private reframe(to: (from: Frame) => Frame): void {
    const selection = this.selection();
    const here = selection && this.page(selection.page);
    const from = here && frameOf(here, selection.ids);
    if (!from || this.items().some((item) => item.kind !== 'ink' && item.fixed)) return;
    const { page, ids } = selection;
    this.make(placeItems(this.session().board(), page, ids, from, to(from)));
  }

  /** Everything on a page that isn't fixed. */
  chooseAll(page: Id): void {
    const here = this.page(page);
    if (!here) return;
    const ids = inSight(here).flatMap((item) =>
      (item.kind !== 'ink' && item.fixed) || !this.abilities(item) ? [] : [item.id],
    );
    this.show(ids.length > 0 ? { page, ids } : null);
  }

  /** The next item on a page, or the one before: so that things can be chosen by keyboard. */
  chooseNext(page: Id, by: 1 | -1): boolean {
    const here = this.page(page);
    const items = here ? inSight(here).filter((item) => this.abilities(item)) : [];
    if (!here || items.length === 0) return false;
    const now = this.selection()?.page === page ? this.selection()!.ids : [];
    const at = items.findIndex(({ id }) => now.includes(id));
    const next = at < 0 ? (by > 0 ? 0 : items.length - 1) : at + by;
    const item = items[next];
    this.show(item ? { page, ids: wholeGroups(here, [item.id]) } : null);
    return item !== undefined;
  }

  /** Puts true shapes in the place of those that were drawn; they are chosen then. */
  private recognize({ page }: Selection): void {
    const here = this.page(page);
    const found = this.items().flatMap((item) => {
      const found = item.kind === 'ink' ? recognizeShape(item) : null;
      const shape = found && { ...found, layer: this.layer() };
      return shape ? [{ item, shape }] : [];
    });
    if (!here || found.length === 0) {
      this.said.set(
        'No line, arrow, box, triangle or ellipse was found in this. Draw it more clearly, or take it from the shapes.',
      );
      return;
    }
    const first = topOrder(here);
    const orders = [first, ...keysBetween(first, null, found.length - 1)];
    const ids = found.map(() => newId());
    this.make([
      { kind: 'items.remove', page, items: found.map(({ item }) => item.id) },
      ...found.map(
        ({ shape }, i) =>
          ({
            id: ids[i]!,
            kind: 'item.add',
            page,
            item: { ...shape, order: orders[i]! },
          }) as Change,
      ),
    ]);
    this.show({ page, ids });
  }

  private page(id: Id): Page | undefined {
    return this.session().board().pages.get(id);
  }

  private changesOf(
    board: Board,
    page: Id,
    ids: readonly Id[],
    command: SelectionCommand,
  ): Change[] {
    switch (command.kind) {
      case 'align':
        return alignItems(board, page, ids, command.edge);
      case 'distribute':
        return distributeItems(board, page, ids, command.along);
      case 'order':
        return orderItems(board, page, ids, command.where);
      case 'group':
        return groupItems(board, page, ids, command.together);
      case 'fix':
        return traitItems(board, page, ids, { fixed: command.fixed });
      case 'hide':
        return traitItems(board, page, ids, { hidden: command.hidden });
      case 'colour':
        return this.items().flatMap((item) =>
          changed(board, page, item, recoloured(item, command.colour)),
        );
      case 'width':
        return this.items().flatMap((item) =>
          changed(board, page, item, widened(item, command.width)),
        );
      case 'traits':
        return this.items().flatMap((item) =>
          item.kind !== 'ink' && command.ids.includes(item.id)
            ? changed(board, page, item, command.to(item))
            : [],
        );
      case 'uncrop':
        return this.items().flatMap((item) =>
          item.kind === 'picture'
            ? (changeItem(board, page, item.id, { ...uncropped(item) }) ?? [])
            : [],
        );
      case 'remove':
        return [{ kind: 'items.remove', page, items: [...ids] }];
      case 'crop':
      case 'straighten':
      case 'describe':
      case 'recognize':
      case 'move':
      case 'size':
      case 'turn':
      case 'duplicate':
      case 'picture':
        return [];
    }
  }

  private make(changes: readonly Change[]): void {
    if (changes.length > 0) this.session().doAll(changes);
  }
}

/** As wide as what was there and around the same middle, as far as the page has room for that. */
function inPlaceOf(frame: Frame, size: { width: number; height: number }, page: Page): Frame {
  const scale = Math.min(frame.width / size.width, page.height / size.height);
  const [width, height] = [size.width * scale, size.height * scale];
  const y = frame.y + (frame.height - height) / 2;
  return {
    ...frame,
    x: frame.x + (frame.width - width) / 2,
    y: Math.max(0, Math.min(page.height - height, y)),
    width,
    height,
  };
}

function changed(board: Board, page: Id, { id }: Item, to: ItemTraits): Change[] {
  const change = changeItem(board, page, id, to);
  return change ? [change] : [];
}

/** A frame larger or smaller about its middle, and no smaller than it may be. */
function sized(frame: Frame, by: number): Frame {
  const factor = Math.max(by, MIN_FRAME / frame.width, MIN_FRAME / frame.height);
  const [width, height] = [frame.width * factor, frame.height * factor];
  return {
    ...frame,
    ...{ width, height },
    x: frame.x + (frame.width - width) / 2,
    y: frame.y + (frame.height - height) / 2,
  };
}

/** A turn in degrees, from -180 to 180. */
function within(turn: number): number {
  return ((((turn + 180) % 360) + 360) % 360) - 180;
}
