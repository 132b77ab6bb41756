import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { pageNumbers } from '@cuaderno/core/board';
import type { Page } from '@cuaderno/core/board';
import type { Author } from '@cuaderno/core/drawing';
import type { Id } from '@cuaderno/core/id';
import type { PaperSource } from '../../board/drawing/paper-source';
import { PageThumb } from '../../board/pages/page-thumb';
import type { BoardSession } from '../../live/board-session';

/** Width of a picture, in CSS px. */
const ACROSS = 72;

/** A page of another board, and who is on it. */
export interface PageElsewhere {
  readonly board: Id;
  readonly title: string;
  readonly page: Page;
  readonly number: string;
  readonly people: readonly Author[];
}

/** Small live pictures of the pages of other boards on which students are. A touch goes there. */
@Component({
  selector: 'cua-elsewhere',
  imports: [PageThumb],
  template: `
    @for (one of places(); track one.board + one.page.id) {
      <button
        type="button"
        [attr.aria-label]="
          one.title + ', page ' + one.number + '. Here: ' + names(one) + '. Go there'
        "
        (click)="chosen.emit(one)"
      >
        <cua-page-thumb [page]="one.page" [papers]="papers()" [across]="across" />
        <span class="people">
          @for (person of one.people; track person.name) {
            <span class="one" [style.background]="person.colour">{{ person.initials }}</span>
          }
        </span>
        <bdi class="title">{{ one.title }} {{ one.number }}</bdi>
      </button>
    }
  `,
  styleUrl: './elsewhere.scss',
  host: { role: 'group', 'aria-label': 'On other boards' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Elsewhere {
  readonly places = input.required<readonly PageElsewhere[]>();
  readonly papers = input.required<PaperSource>();
  readonly chosen = output<PageElsewhere>();
  protected readonly across = ACROSS;

  protected names({ people }: PageElsewhere): string {
    return people.map(({ name }) => name).join(', ');
  }
}

/** Who of the students is on which page of the board in sight just now. */
export function whoIsWhere(
  live: BoardSession,
  authors: ReadonlyMap<Id, Author>,
): ReadonlyMap<Id, Author[]> {
  const where = new Map<Id, Author[]>();
  const current = live.id();
  for (const { id, role, here, board, page } of live.people()) {
    const author = authors.get(id);
    if (role === 'student' && here && page && author && board === current)
      where.set(page, [...(where.get(page) ?? []), author]);
  }
  return where;
}

/**
 * Where students are on other boards than the one in sight, as far as those are open here.
 * @param sessions boards that are open in this window, by their ids
 */
export function placesElsewhere(
  live: BoardSession,
  sessions: ReadonlyMap<Id, BoardSession>,
  authors: ReadonlyMap<Id, Author>,
): PageElsewhere[] {
  const places = new Map<string, PageElsewhere & { readonly people: Author[] }>();
  for (const { id, role, here, board, page } of live.people()) {
    const author = authors.get(id);
    if (role !== 'student' || !here || !board || !page || !author || board === live.id()) continue;
    const key = `${board} ${page}`;
    const known = places.get(key);
    if (known) known.people.push(author);
    else {
      const state = sessions.get(board)?.board();
      const there = state?.pages.get(page);
      if (!state || !there || there.removed) continue;
      places.set(key, {
        ...{ board, title: state.title, page: there, people: [author] },
        number: pageNumbers(state).get(page) ?? '',
      });
    }
  }
  return [...places.values()];
}

/** The boards on which students are, besides the one in sight. */
export function boardsElsewhere(live: BoardSession): readonly Id[] {
  const boards = live
    .people()
    .flatMap(({ role, here, board }) => (role === 'student' && here && board ? [board] : []));
  return [...new Set(boards)].filter((board) => board !== live.id());
}
