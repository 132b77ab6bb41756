import {
  ANY_STUDENT,
  boardFor,
  boardSnapshot,
  itemsOn,
  NOTHING_BESIDE,
  specOf,
} from '@cuaderno/core';
import type { Id } from '@cuaderno/core';
import { readBoardFile } from '@cuaderno/formats/board-file';
import { takeAnnotations } from '@cuaderno/formats/pdf-annotations';
import { cpSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { gunzipSync } from 'node:zlib';
import { House } from '../testing/harness.js';
import type { Visitor } from '../testing/harness.js';

const KEPT = fileURLToPath(new URL('../../test-data/', import.meta.url));

/** The one board of a record, as that build named it. */
interface Goes {
  readonly board: Id;
  readonly title: string;
  readonly same: boolean;
}

/** What that build read of its data. */
interface Read {
  readonly board: Id;
  readonly lesson: Id;
  readonly boards: Readonly<Record<Id, { readonly whole: unknown; readonly student: unknown }>>;
  readonly record: unknown;
  readonly timeline: unknown;
  readonly lateLines: unknown;
  readonly people: readonly (readonly unknown[])[];
  readonly links: readonly (readonly unknown[])[];
  readonly boardFile: unknown;
}

/** As `read.json` has it: bytes as text. */
function plain(value: unknown): unknown {
  const text = JSON.stringify(value, (_key, one: unknown) =>
    one instanceof Uint8Array ? { bytes: Buffer.from(one).toString('base64') } : one,
  );
  return JSON.parse(text);
}

interface OtherWords {
  readonly keys: Readonly<Record<string, string>>;
  /** By the field that they stand in. */
  readonly values: Readonly<Record<string, Readonly<Record<string, string>>>>;
}

function inOtherWords(value: unknown, words: OtherWords): unknown {
  if (Array.isArray(value)) return value.map((one) => inOtherWords(one, words));
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, one]) => [
      words.keys[key] ?? key,
      typeof one === 'string' ? (words.values[key]?.[one] ?? one) : inOtherWords(one, words),
    ]),
  );
}

/** What a build of that day read, in the words of now. */
const IN_WORDS_OF_NOW: Readonly<Record<string, (read: Read) => Read>> = {
  '2026-11-30': (read) =>
    inOtherWords(read, {
      keys: { held: 'hidden', margin: 'privateNotes', nth: 'nameOrdinal', figures: 'statistics' },
      values: { mark: { look: 'attention' }, trust: { look: 'view' } },
    }) as Read,
};

for (const day of readdirSync(KEPT).filter((name) => /^\d{4}-/.test(name)))
  describe(`data of the build of ${day}`, () => {
    const from = join(KEPT, day);
    const read = IN_WORDS_OF_NOW[day]!(
      JSON.parse(readFileSync(join(from, 'read.json'), 'utf8')) as Read,
    );
    let house: House;
    let maren: Visitor;

    beforeEach(async () => {
      const folder = mkdtempSync(join(tmpdir(), 'cuaderno-earlier-'));
      cpSync(join(from, 'files'), join(folder, 'files'), { recursive: true });
      const db = gunzipSync(readFileSync(join(from, 'cuaderno.db.gz')));
      writeFileSync(join(folder, 'cuaderno.db'), db);
      house = House.at(folder);
      await house.start();
      maren = house.visitor();
      const { statusCode } = await maren.post('/sign-in', {
        ...{ email: 'maren@example.org', password: 'low-water-at-ten' },
      });
      expect(statusCode).toBeLessThan(300);
    });
    afterEach(() => house.close());

    const got = async (path: string): Promise<unknown> => plain((await maren.get(path)).json());

    it('opens with every board as it was, for its tutor and for students', async () => {
      expect(Object.keys(read.boards).length).toBeGreaterThan(0);
      for (const [id, was] of Object.entries(read.boards)) {
        const { board, seq, unreadable } = (await house.app.logs.load(id))!;
        expect(unreadable).toEqual([]);
        expect(plain(boardSnapshot(board, seq))).toEqual(was.whole);
        expect(plain(boardSnapshot(boardFor(board, ANY_STUDENT), seq))).toEqual(was.student);
      }
    });

    it('opens with its records, late lines and links as they were', async () => {
      // What is said of a record since then besides, is said of this one too.
      const { goesOn, ...record } = read.record as { goesOn: Goes };
      const { board, title, same } = goesOn;
      const now = { said: ['chat'], boards: [{ board, title, goesOn: { title, same } }] };
      expect(await got(`/records/${read.lesson}`)).toEqual({ ...record, ...now });
      const timeline = { ...NOTHING_BESIDE, ...(read.timeline as object) };
      expect(await got(`/records/${read.lesson}/timeline`)).toEqual(timeline);
      expect(await got('/late-lines')).toEqual(read.lateLines);
      const [people] = await house.app.db.raw([
        { sql: 'SELECT name, role, trust, rules FROM people ORDER BY role, name', params: [] },
      ]);
      const inWordsOfNow = read.people.map((row) =>
        row.map((one) => (one === 'look' ? 'view' : one)),
      );
      expect(plain(people)).toEqual(inWordsOfNow);
      const [links] = await house.app.db.raw([
        { sql: 'SELECT may, names FROM record_links', params: [] },
      ]);
      expect(plain(links)).toEqual(read.links.map(([, names]) => ['view', names]));
    });

    it('goes on: late lines are added to the record, and their page has them', async () => {
      const { waiting } = (await maren.get('/late-lines')).json<{ waiting: { person: Id }[] }>();
      const path = `/late-lines/${read.lesson}/${waiting[0]!.person}/${read.board}`;
      const { statusCode } = await maren.post(path, { to: 'page' });
      expect(statusCode).toBeLessThan(300);
      const before = (read.boards[read.board]!.whole as { pages: { items: unknown[] }[] }).pages;
      const { board } = (await house.app.logs.load(read.board))!;
      const [page] = [...board.pages.values()];
      expect(page!.items.size).toBe(before[0]!.items.length + 1);
    });

    it('has a board file that opens as the board that was saved', () => {
      const bytes = readFileSync(join(from, 'board.zip'));
      const { board } = readBoardFile(bytes, { bytes: 10_000_000, entries: 100 });
      expect(plain({ ...board, version: 1 })).toEqual(read.boardFile);
    });

    it('has a PDF of which our items come back as they were', async () => {
      const pdf = readFileSync(join(from, 'annotations.pdf'));
      const taken = await takeAnnotations(pdf, { measure: () => () => 0 });
      const { board } = (await house.app.logs.load(read.board))!;
      const [page] = [...board.pages.values()];
      const own = taken!.pages
        .get(1)!
        .flatMap((item) => (item.kind === 'placed' ? [plain(item.spec)] : []));
      const written = itemsOn(page!).flatMap((item) =>
        item.kind !== 'ink' && item.layer === 'ink' ? [plain(specOf(item))] : [],
      );
      expect(own).toEqual(written as never[]);
    });
  });
