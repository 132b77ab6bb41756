import {
  A4,
  apply,
  BoardDraft,
  checkStroke,
  emptyBoard,
  keysBetween,
  newId,
  pack,
  STORED_VERSION,
  unpack,
} from '@cuaderno/core';
import type {
  Board,
  Entry,
  Id,
  KeptEntry,
  KnownOperation,
  Tombstone,
  Unreadable,
} from '@cuaderno/core';
import { and, count, eq, lte, max, sql } from 'drizzle-orm';
import type { Database } from '../database/index.js';
import { readOperation } from './operation-check.js';
import { boards, operations } from './tables.js';

/** Rows in one INSERT: SQLite takes at most 32,766 values, at ten a row. */
const ROWS_AT_ONCE = 500;

/**
 * Entries read in one go. Even if each were ink of the largest size, its digits would stay below
 * the thousand million bytes that SQLite allows a text.
 */
const ENTRIES_AT_ONCE = 2000;

/** Entries of a board after one place and up to another, as two texts. */
const READ = `SELECT group_concat(entry), group_concat(digits, '') FROM (
  SELECT json_array(seq, id, "by", at, lesson, kind, page, version, length(body)) AS entry, hex(body) AS digits
  FROM operations WHERE board = ? AND seq > ? AND seq <= ? ORDER BY seq LIMIT ${ENTRIES_AT_ONCE})`;

/** An entry as it is read; bodies come by themselves, this is how many bytes its own is long. */
type LogRow = [
  seq: number,
  id: string,
  by: string,
  at: number,
  lesson: string | null,
  kind: string,
  page: string | null,
  version: number,
  length: number,
];

/**
 * A line is stored as its coded ink and nothing around it; there are so many of them. One that lies on a
 * cover sheet is stored as other operations are. Coded ink begins with a byte below 0x80 (its version),
 * a MessagePack map with one from 0x80 on.
 */
function rowOf(board: number, { seq, by, at, lesson, op }: Entry): unknown[] {
  if (op.kind === 'ink.add' && !op.on)
    return [board, seq, op.id, by, at, lesson, op.kind, op.page, STORED_VERSION, op.ink];
  const { id, kind, ...rest } = op;
  const page = 'page' in op ? op.page : null;
  return [board, seq, id, by, at, lesson, kind, page, STORED_VERSION, pack(rest)];
}

/** Entries that are folded before others are served. */
const FOLDED_AT_ONCE = 4000;

/** The board after these entries. Boards may be large, and nobody else waits for them. */
async function folded(board: Board, entries: readonly KeptEntry[]): Promise<Board> {
  const draft = new BoardDraft(board);
  for (let i = 0; i < entries.length; i += FOLDED_AT_ONCE) {
    if (i > 0) await new Promise((resolve) => setImmediate(resolve));
    for (const entry of entries.slice(i, i + FOLDED_AT_ONCE)) apply(entry.op, draft, entry);
  }
  return draft.done();
}

/** What a row says; one that says nothing that anyone could have done is there as `unreadable`. */
function entryOf(
  [seq, id, by, at, lesson, kind, page, version]: LogRow,
  body: Uint8Array,
): KeptEntry {
  const op = operationOf(id, kind, page, version, body);
  return { seq, by, at, lesson, op: op ?? unreadable(page, kind, id) };
}

function operationOf(
  id: Id,
  kind: string,
  page: Id | null,
  version: number,
  body: Uint8Array,
): KeptEntry['op'] | null {
  try {
    if (kind === 'tombstone') return { id, kind };
    if (kind === 'ink.add' && body[0]! < 0x80) {
      checkStroke(body);
      return page === null ? null : { id, kind, page, ink: body };
    }
    return readOperation({ id, kind, ...(unpack(body) as object) }, version);
  } catch {
    return null;
  }
}

function unreadable(page: Id | null, was: string | null, id = newId()): Unreadable {
  return { id, kind: 'unreadable', page, was: was?.slice(0, 20) ?? null };
}

/**
 * Lays in stand-ins for pages that can't be read but have been written on: what is on them isn't lost with them.
 * @param entries a whole log
 */
function withStandIns(entries: readonly KeptEntry[]): readonly KeptEntry[] {
  const first = entries.findIndex(({ op }) => op.kind === 'unreadable');
  if (first < 0) return entries;
  const there = new Set<Id>();
  const missing = new Set<Id>();
  for (const { op } of entries) {
    if (op.kind === 'pages.add') for (const { id } of op.pages) there.add(id);
    else if ('page' in op && op.page && !there.has(op.page)) missing.add(op.page);
  }
  const pages = [...missing].filter((id) => !there.has(id));
  if (pages.length === 0) return entries;
  const last = entries.flatMap(({ op }) => (op.kind === 'pages.add' ? op.pages : []));
  const orders = keysBetween(
    last
      .map(({ order }) => order)
      .sort()
      .at(-1) ?? null,
    null,
    pages.length,
  );
  const standIns = pages.map((id, i) => ({
    ...{ id, order: orders[i]!, name: 'A page that can’t be read', ...A4 },
    paper: { kind: 'plain' as const },
  }));
  const { op, ...stamp } = entries[first]!;
  return entries.with(first, { ...stamp, op: { ...(op as Unreadable), standIns } });
}

/**
 * Logs of boards on disk. Entries are added and read, never changed; but where a student's data is deleted, `nothing`
 * stands in place of what was theirs.
 */
export class LogStore {
  constructor(private readonly db: Database) {}

  /** On disk when this returns; all of them or none. */
  async append(board: number, entries: readonly Entry[]): Promise<void> {
    const statements: { sql: string; params: unknown[] }[] = [];
    for (let i = 0; i < entries.length; i += ROWS_AT_ONCE) {
      const run = entries.slice(i, i + ROWS_AT_ONCE);
      statements.push({
        sql: `INSERT INTO operations (board, seq, id, "by", at, lesson, kind, page, version, body) VALUES ${run.map(() => '(?,?,?,?,?,?,?,?,?,?)').join(',')}`,
        params: run.flatMap((entry) => rowOf(board, entry)),
      });
    }
    const title = entries.findLast(({ op }) => op.kind === 'board.rename')?.op;
    if (title?.kind === 'board.rename')
      statements.push({
        sql: 'UPDATE boards SET title = ? WHERE num = ?',
        params: [title.title, board],
      });
    await this.db.raw(statements);
  }

  /**
   * Entries after `since`, up to `until` if given, in order. They come as two texts, one of rows and
   * one of bodies: five thousand rows, value by value from one thread to the other, take five times
   * as long.
   */
  async entries(
    board: number,
    since: number,
    until = Number.MAX_SAFE_INTEGER,
  ): Promise<KeptEntry[]> {
    try {
      return await this.inRuns(board, since, until);
    } catch {
      // A page of the database is damaged: what isn't on it can be read all the same.
      const last = Math.min(until, await this.last(board));
      return this.inHalves(board, since, last);
    }
  }

  private async inRuns(board: number, since: number, until: number): Promise<KeptEntry[]> {
    const entries: KeptEntry[] = [];
    const read = (from: number): Promise<unknown[][]> =>
      this.db.raw([{ sql: READ, params: [board, from, until] }]);
    for (let next: Promise<unknown[][]> | null = read(since); next;) {
      const [found] = await next;
      const [text, digits] = found![0] as [string | null, string | null];
      const rows = JSON.parse(`[${text ?? ''}]`) as LogRow[];
      // The database goes on while these are taken apart.
      next = rows.length < ENTRIES_AT_ONCE ? null : read(rows.at(-1)![0]);
      const bytes = new Uint8Array(Buffer.from(digits ?? '', 'hex'));
      let place = 0;
      for (const row of rows) entries.push(entryOf(row, bytes.subarray(place, (place += row[8]))));
    }
    return entries;
  }

  /** Reads entries in halves, and halves of those, down to the single rows that can't be read. */
  private async inHalves(board: number, since: number, until: number): Promise<KeptEntry[]> {
    if (since >= until) return [];
    try {
      return await this.inRuns(board, since, until);
    } catch {
      if (until - since === 1)
        return [{ seq: until, by: '', at: 0, lesson: null, op: unreadable(null, null) }];
      const middle = Math.floor((since + until) / 2);
      const before = await this.inHalves(board, since, middle);
      return [...before, ...(await this.inHalves(board, middle, until))];
    }
  }

  /** These entries of a board, in order. */
  async some(board: number, places: readonly number[]): Promise<KeptEntry[]> {
    if (places.length === 0) return [];
    const [rows] = await this.db.raw([
      {
        sql: `SELECT seq, id, "by", at, lesson, kind, page, version, length(body), body FROM operations
          WHERE board = ? AND seq IN (SELECT value FROM json_each(?)) ORDER BY seq`,
        params: [board, JSON.stringify(places)],
      },
    ]);
    return (rows as [...LogRow, Uint8Array][]).map((row) =>
      entryOf(row.slice(0, 9) as LogRow, row[9] as unknown as Uint8Array),
    );
  }

  private async last(board: number): Promise<number> {
    const [rows] = await this.db.raw([
      { sql: 'SELECT max(seq) FROM operations WHERE board = ?', params: [board] },
    ]);
    return (rows as [number | null][])[0]?.[0] ?? 0;
  }

  /**
   * What puts nothing in place of these entries, and one more at the end: anyone who comes back to the board and has
   * seen it before is told by it that what they have isn't the board any more.
   * @param last the place of the last entry there is
   */
  takingOut(
    board: number,
    out: readonly Entry<Tombstone>[],
    last: number,
    { by, at }: Pick<Entry, 'by' | 'at'>,
  ): { sql: string; params: unknown[] }[] {
    const nothing = pack({});
    return [
      {
        sql: `UPDATE operations SET kind = 'tombstone', page = NULL, version = ?, body = ?
          WHERE board = ? AND seq IN (SELECT value FROM json_each(?))`,
        params: [STORED_VERSION, nothing, board, JSON.stringify(out.map(({ seq }) => seq))],
      },
      {
        sql: `INSERT INTO operations (board, seq, id, "by", at, lesson, kind, page, version, body) VALUES (?,?,?,?,?,NULL,'tombstone',NULL,?,?)`,
        params: [board, last + 1, newId(), by, at, STORED_VERSION, nothing],
      },
    ];
  }

  /** The place of a board's last entry; 0 where it has none. */
  async lastPlace(id: string): Promise<number> {
    const [row] = await this.db
      .select({ last: max(operations.seq) })
      .from(operations)
      .innerJoin(boards, eq(boards.num, operations.board))
      .where(eq(boards.id, id));
    return row?.last ?? 0;
  }

  /** How many entries up to `until` something was taken out of: the log up to there is as it was while this is. */
  async takenOutOf(id: string, until: number): Promise<number> {
    const [row] = await this.db
      .select({ n: count() })
      .from(operations)
      .innerJoin(boards, eq(boards.num, operations.board))
      // As the index has it: a value that is bound would not do.
      .where(
        and(eq(boards.id, id), lte(operations.seq, until), sql`${operations.kind} = 'tombstone'`),
      );
    return row?.n ?? 0;
  }

  /** All entries up to `until`; `null` where there is no such board. */
  async whole(id: string, until: number): Promise<KeptEntry[] | null> {
    const [row] = await this.db.select({ num: boards.num }).from(boards).where(eq(boards.id, id));
    return row ? [...withStandIns(await this.entries(row.num, 0, until))] : null;
  }

  /** The board as it was after entry `until`, its last place, and the place of every operation. */
  async load(
    id: string,
    until?: number,
  ): Promise<{
    num: number;
    board: Board;
    seq: number;
    known: Map<Id, KnownOperation>;
    /** What can't be read of its log. */
    unreadable: readonly Entry<Unreadable>[];
  } | null> {
    const [row] = await this.db.select().from(boards).where(eq(boards.id, id));
    if (!row) return null;
    const entries = withStandIns(await this.entries(row.num, 0, until));
    return {
      num: row.num,
      board: await folded(emptyBoard(id), entries),
      seq: entries.at(-1)?.seq ?? 0,
      known: new Map(entries.map(({ op, seq, by }) => [op.id, { seq, by }])),
      unreadable: entries.filter(
        (entry): entry is Entry<Unreadable> => entry.op.kind === 'unreadable',
      ),
    };
  }
}
