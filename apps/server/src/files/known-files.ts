import { eq } from 'drizzle-orm';
import type { Database } from '../database/index.js';
import { ProblemError } from '../problems/index.js';
import type { FileStore } from './store.js';
import { files } from './tables.js';

/** What is known of a stored file. */
export interface FileInfo {
  readonly hash: string;
  readonly bytes: number;
  /** Media type under which it is sent. */
  readonly type: string;
}

/** Which files something names: boards, shelves. Those that nothing names are cleared away. */
export class KnownFiles {
  constructor(
    private readonly db: Database,
    private readonly store: FileStore,
  ) {}

  /** A statement that makes a file known, to be done with those that name it. */
  insert({ hash, bytes, type }: FileInfo): Parameters<Database['batch']>[0][number] {
    return this.db
      .insert(files)
      .values({ hash, bytes, type, createdAt: Date.now() })
      .onConflictDoNothing();
  }

  /** Throws `not-found` for a file that isn't known. */
  async info(hash: string): Promise<FileInfo> {
    const [row] = await this.db.select().from(files).where(eq(files.hash, hash));
    if (!row) throw new ProblemError('not-found');
    return row;
  }

  /** What the boards of a course show: each file as it was brought, not what was made of it, in the order of names. */
  async onBoardsOf(course: string): Promise<{ file: string; name: string; type: string }[]> {
    const [rows] = await this.db.raw([
      {
        sql: `SELECT f.hash, min(bf.name), f.type FROM board_files bf
          JOIN boards b ON b.id = bf.board JOIN files f ON f.hash = coalesce(bf.made_of, bf.hash)
          WHERE b.course = ? AND b.removed_at IS NULL
            AND f.hash NOT IN (SELECT preview FROM assets WHERE preview IS NOT NULL)
          GROUP BY f.hash ORDER BY min(bf.name)`,
        params: [course],
      },
    ]);
    return (rows as [string, string, string][]).map(([file, name, type]) => ({ file, name, type }));
  }

  /** PDFs that the boards of courses were made of, as they were brought, in the order of names; those of removed boards, too: records have them. */
  async pdfsOf(courses: readonly string[]): Promise<{ file: string; name: string }[]> {
    const [rows] = await this.db.raw([
      {
        sql: `SELECT f.hash, min(bf.name) FROM board_files bf
          JOIN boards b ON b.id = bf.board JOIN files f ON f.hash = coalesce(bf.made_of, bf.hash)
          WHERE b.course IN (SELECT value FROM json_each(?)) AND f.type = 'application/pdf'
          GROUP BY f.hash ORDER BY min(bf.name)`,
        params: [JSON.stringify(courses)],
      },
    ]);
    return (rows as [string, string][]).map(([file, name]) => ({ file, name }));
  }

  /** Removes a stored file that isn't known: it came, and was refused or is kept as another. */
  async dropUnknown(hash: string): Promise<void> {
    const rows = await this.db.select({ hash: files.hash }).from(files).where(eq(files.hash, hash));
    if (rows.length === 0) await this.store.remove(hash);
  }
}
