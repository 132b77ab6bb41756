import { computed, inject, Injectable, signal } from '@angular/core';
import { lasting, remember } from '../../browser/storage';
import { SMALL_WINDOW } from '../../ui/theme/matches';
import { MaterialsStore } from '../../materials/store/materials-store';

/** What can stand beside the page, one at a time. */
export type Beside = 'people' | 'chat' | 'notes' | 'materials' | 'find';

/** Of these there is something in a lesson alone. */
const OF_LESSON: ReadonlySet<string> = new Set<Beside>(['people', 'chat']);
const ALL: ReadonlySet<string> = new Set<Beside>(['people', 'chat', 'notes', 'materials', 'find']);

const COLUMN = 'cuaderno.beside';
const IN_LESSON = 'cuaderno.beside.lesson';
const PAGES = 'cuaderno.page-pictures';
const FOLDED = 'folded';

/**
 * What stands open beside the page: one thing of the column, or none of them; and the pictures of pages. The tutor
 * finds it as it was left, on this machine: in lessons by itself, between them by itself.
 */
@Injectable()
export class BesideBoard {
  private readonly materials = inject(MaterialsStore);
  /** Whether a lesson is on here. */
  readonly inLesson = signal(false);
  /** In a small window it is below the page, and folded until it is asked for. */
  private readonly isSmall = matchMedia(SMALL_WINDOW).matches;
  private readonly within = signal(this.isSmall ? null : remembered(IN_LESSON, 'people'));
  private readonly between = signal(this.isSmall ? null : remembered(COLUMN, null));
  /** Whether somebody opened it in this window: then it takes the focus. */
  readonly opened = signal(false);
  private before: Beside | null = null;
  readonly pages = signal(lasting.getItem(PAGES) !== FOLDED);
  readonly open = computed<Beside | null>(() => {
    const open = this.inLesson() ? this.within() : this.between();
    return !this.inLesson() && OF_LESSON.has(open ?? '') ? null : open;
  });

  /** Opens one in place of another, or folds the column. */
  show(one: Beside | null): void {
    if (one !== this.open()) this.before = this.open();
    const [kept, key] = this.inLesson() ? [this.within, IN_LESSON] : [this.between, COLUMN];
    this.opened.set(one !== null);
    kept.set(one);
    // What is looked for is looked for now, and not when the board is opened again.
    if (one !== 'find' && !this.isSmall) remember(lasting, key, one ?? FOLDED);
  }

  /** What was open before stands there again: who has found something goes on with the class. */
  back(): void {
    this.show(this.before);
  }

  toggle(one: Beside): void {
    this.show(this.open() === one ? null : one);
  }

  togglePages(): void {
    this.pages.update((open) => !open);
    remember(lasting, PAGES, this.pages() ? 'open' : FOLDED);
  }

  /** What was brought to the board lies among materials, too. */
  inserted(): void {
    if (this.open() === 'materials') void this.materials.load();
  }
}

function remembered(key: string, first: Beside | null): Beside | null {
  const kept = lasting.getItem(key);
  if (kept === FOLDED) return null;
  return kept !== null && ALL.has(kept) ? (kept as Beside) : first;
}
