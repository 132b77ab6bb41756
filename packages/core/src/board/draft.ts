import type { Id } from '../id/index.js';
import type { Rules } from '../permissions/index.js';
import type { Board } from './board.js';
import type { Item } from './item.js';
import type { Page, PageSpec } from './page.js';
import type { Sheet } from './paper.js';

type OwnPage = { -readonly [K in keyof Page]: Page[K] } & { items: Map<Id, Item> };

/**
 * A board being changed. A page is copied when it is first touched and then changed in place, so
 * that folding a thousand operations copies each page once; the board it came from stays as it was.
 */
export class BoardDraft {
  private title: string;
  private sheet: Sheet | null;
  private rules: Rules;
  private pages: Map<Id, Page>;
  private unreadable: number | undefined;
  private readonly own = new Map<Id, OwnPage>();
  private changed = false;

  constructor(private base: Board) {
    this.title = base.title;
    this.sheet = base.sheet;
    this.rules = base.rules;
    this.pages = base.pages as Map<Id, Page>;
    this.unreadable = base.unreadable;
  }

  /**
   * The board as it is now, to look at only until the next change: unlike what `done` hands out,
   * it changes with the draft.
   */
  get current(): Board {
    const { title, sheet, rules, pages, unreadable } = this;
    const board = { id: this.base.id, title, sheet, rules, pages };
    return unreadable ? { ...board, unreadable } : board;
  }

  page(id: Id): Page | undefined {
    return this.pages.get(id);
  }

  item(page: Id, id: Id): Item | undefined {
    return this.pages.get(page)?.items.get(id);
  }

  setTitle(title: string): void {
    this.title = title;
    this.changed = true;
  }

  setSheet(sheet: Sheet | null): void {
    this.sheet = sheet;
    this.changed = true;
  }

  setRules(rules: Rules): void {
    this.rules = rules;
    this.changed = true;
  }

  addPage(spec: PageSpec & Pick<Page, 'unreadable'>): void {
    this.ownPages();
    const page: OwnPage = { ...spec, removed: null, items: new Map() };
    this.own.set(spec.id, page);
    this.pages.set(spec.id, page);
  }

  /** Lays a page in as it is, in place of what was known of it. */
  putPage(page: Page): void {
    this.ownPages();
    this.own.delete(page.id);
    this.pages.set(page.id, page);
  }

  /** Forgets a page, as if it had never been there. */
  dropPage(id: Id): void {
    this.ownPages();
    this.own.delete(id);
    this.pages.delete(id);
  }

  setPage(id: Id, change: Partial<Omit<Page, 'id' | 'items'>>): void {
    Object.assign(this.ownPage(id), change);
  }

  /** One thing more can't be read, on this page if that is known. */
  noteUnreadable(id: Id | null): void {
    this.unreadable = (this.unreadable ?? 0) + 1;
    this.changed = true;
    if (!id || !this.page(id)) return;
    const page = this.ownPage(id);
    page.unreadable = (page.unreadable ?? 0) + 1;
  }

  setItem(page: Id, item: Item): void {
    this.ownPage(page).items.set(item.id, item);
  }

  /** Forgets an item, as if it had never been there. */
  dropItem(page: Id, item: Id): void {
    this.ownPage(page).items.delete(item);
  }

  /** The board as it is now. The draft may be used on: what was handed out stays as it is. */
  done(): Board {
    if (!this.changed) return this.base;
    this.base = this.current;
    this.own.clear();
    this.changed = false;
    return this.base;
  }

  private ownPages(): void {
    if (this.pages === this.base.pages) this.pages = new Map(this.pages);
    this.changed = true;
  }

  private ownPage(id: Id): OwnPage {
    this.ownPages();
    let page = this.own.get(id);
    if (!page) {
      const shared = this.pages.get(id)!;
      page = { ...shared, items: new Map(shared.items) };
      this.own.set(id, page);
      this.pages.set(id, page);
    }
    return page;
  }
}
