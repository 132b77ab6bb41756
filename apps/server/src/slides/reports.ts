import type { ImportReport } from '@cuaderno/formats/slides-in/report';
import { readReport } from '@cuaderno/formats/slides-in/stored-report';
import { eq } from 'drizzle-orm';
import type { Database } from '../database/index.js';
import { boardReports } from './tables.js';

/** What changed when slides became boards. */
export class Reports {
  constructor(private readonly db: Database) {}

  async keep(board: string, report: ImportReport): Promise<void> {
    await this.db
      .insert(boardReports)
      .values({ board, report: JSON.stringify(report) })
      .onConflictDoNothing();
  }

  /** The report on a board, and whether its tutor has looked at it; `null` where there is none. */
  async of(board: string): Promise<{ report: ImportReport; seen: boolean } | null> {
    const [row] = await this.db.select().from(boardReports).where(eq(boardReports.board, board));
    return row ? { report: readReport(JSON.parse(row.report)), seen: row.seenAt !== null } : null;
  }

  async seen(board: string): Promise<void> {
    await this.db
      .update(boardReports)
      .set({ seenAt: Date.now() })
      .where(eq(boardReports.board, board));
  }
}
