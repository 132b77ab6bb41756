import { filesOf, itemsOn, pagesInOrder } from '@cuaderno/core';
import type { Board, Id } from '@cuaderno/core';
import { and, eq, inArray, isNull, or } from 'drizzle-orm';
import { boards } from '../boards/tables.js';
import { courses } from '../courses/tables.js';
import type { Database } from '../database/index.js';
import { boardFiles } from '../files/tables.js';
import type { LessonBus } from '../live/lesson-bus.js';

/** A board on which a file is used, and where. */
export interface Use {
  readonly board: Id;
  readonly title: string;
  readonly course: string;
  /** Numbers of its pages, from 1. */
  readonly pages: readonly number[];
}

/** Tells on which boards files are used. Boards that were taken out don't count: they may come back. */
export class Uses {
  constructor(
    private readonly db: Database,
    private readonly bus: LessonBus,
  ) {}

  /** Uses of these files on a tutor's boards, in the order of their names. */
  async of(tutor: Id, hashes: readonly string[]): Promise<Use[]> {
    const wanted = [...new Set(hashes)];
    const rows = await this.db
      .select({
        board: boards.id,
        title: boards.title,
        course: courses.name,
        hash: boardFiles.hash,
      })
      .from(boardFiles)
      .innerJoin(boards, eq(boards.id, boardFiles.board))
      .innerJoin(courses, eq(courses.id, boards.course))
      .where(
        and(
          eq(courses.tutor, tutor),
          isNull(boards.removedAt),
          or(inArray(boardFiles.hash, wanted), inArray(boardFiles.madeOf, wanted)),
        ),
      );
    const there = new Map<Id, { title: string; course: string; hashes: Set<string> }>();
    for (const { board, title, course, hash } of rows) {
      const one = there.get(board) ?? { title, course, hashes: new Set() };
      one.hashes.add(hash);
      there.set(board, one);
    }
    const uses: Use[] = [];
    for (const [board, { title, course, hashes: files }] of there) {
      // What was brought to a board may have been removed from it since.
      const host = await this.bus.host(board);
      const pages = host ? await host.between((state) => pagesWith(state, files)) : [];
      if (pages.length > 0) uses.push({ board, title, course, pages });
    }
    return uses.sort((a, b) => a.title.localeCompare(b.title));
  }
}

/** Numbers of pages on which any of these files is to be seen. */
function pagesWith(board: Board, files: ReadonlySet<string>): number[] {
  return pagesInOrder(board).flatMap((page, i) => {
    const printed = page.paper.kind === 'pdf' && files.has(page.paper.file);
    const laid = itemsOn(page).some(
      (item) => item.kind !== 'ink' && filesOf(item).some((file) => files.has(file)),
    );
    return printed || laid ? [i + 1] : [];
  });
}
