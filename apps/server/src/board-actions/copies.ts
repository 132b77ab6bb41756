import { copiesOf, keysBetween, operation, pagesInOrder } from '@cuaderno/core';
import type { Board, Id, Made, Page } from '@cuaderno/core';
import { hostOf } from '../live/lesson-bus.js';
import type { LessonBus } from '../live/lesson-bus.js';
import type { BoardHost } from '../live/board-host.js';
import { ProblemError } from '../problems/index.js';
import type { LogStore } from '../boards/log-store.js';
import type { BoardInfo, Boards } from '../boards/service.js';
import type { BoardWriters } from '../boards/writers.js';

/** How a board is to be copied. */
export interface CopyWish {
  readonly course: string;
  readonly title: string;
  /** Whether what was written in lessons comes too. */
  readonly lessonInk: boolean;
}

/** Takes boards and pages to other places, with everything on them and the names of its makers. */
export class Copies {
  constructor(
    private readonly boards: Boards,
    private readonly bus: LessonBus,
    private readonly logs: LogStore,
    private readonly writers: BoardWriters,
  ) {}

  /** A board like another as it is now. */
  async copyBoard(from: Id, wish: CopyWish, tutor: Id): Promise<BoardInfo> {
    const host = await hostOf(this.bus, from);
    return this.copyState(await host.between((state) => state), wish, tutor);
  }

  /** A copy of a board as it was at some time. It is seen when it is whole, and never before. */
  async copyState(
    like: Board,
    { course, title, lessonInk }: CopyWish,
    tutor: Id,
  ): Promise<BoardInfo> {
    const pages = pagesInOrder(like);
    const { num, ...board } = await this.boards.begin(course, title, like.id);
    const at = Date.now();
    const begin: Made[] = [operation({ kind: 'board.rename', title, former: '' })]
      .concat(like.sheet ? operation({ kind: 'board.sheet', to: like.sheet, from: null }) : [])
      .map((op) => ({ op, by: tutor, at, lesson: null }));
    const orders = keysBetween(null, null, pages.length);
    const { entries } = copiesOf(pages, orders, { by: tutor, at, lessonInk });
    await this.logs.append(
      num,
      [...begin, ...entries].map((made, i) => ({ ...made, seq: i + 1 })),
    );
    if (lessonInk) await this.writers.copied(like.id, board.id);
    await this.boards.finished(board.id);
    return board;
  }

  /**
   * Takes pages from one board to the end of another. They are there before they are gone here.
   * Throws `last-pages` where no page would be left.
   */
  async movePages(from: Id, ids: readonly Id[], to: Id, tutor: Id): Promise<{ pages: Id[] }> {
    const [here, there] = [await hostOf(this.bus, from), await hostOf(this.bus, to)];
    const all = await here.between(pagesInOrder);
    const wanted = new Set(ids);
    const pages = all.filter(({ id }) => wanted.has(id));
    if (pages.length === 0) throw new ProblemError('not-found');
    if (pages.length === all.length) throw new ProblemError('last-pages');
    await this.boards.shareFiles(from, to);
    await this.writers.copied(from, to);
    const brought = await this.lay(pages, there, tutor);
    const gone = operation({ kind: 'pages.remove', pages: pages.map(({ id }) => id) });
    await here.append([{ op: gone, by: tutor, at: Date.now(), lesson: here.lesson }]);
    return { pages: brought };
  }

  private async lay(pages: readonly Page[], there: BoardHost, tutor: Id): Promise<Id[]> {
    const last = await there.between((board) => pagesInOrder(board).at(-1)?.order ?? null);
    const copies = copiesOf(pages, keysBetween(last, null, pages.length), {
      by: tutor,
      at: Date.now(),
      lessonInk: true,
    });
    await there.append(copies.entries);
    return copies.pages;
  }
}
