import { pageFrame, pageSnapshot } from '../board/index.js';
import type { Board, Page } from '../board/index.js';
import type { Id } from '../id/index.js';
import { pack } from './codec.js';

/*
 * Boards are sent to anyone who comes, and little of them changes between one and the next: pages are
 * packed once and kept for as long as they are what they were. MessagePack values in a list or a map
 * stand one after the other behind its head (the MessagePack specification, "Formats"), so what was
 * packed before is put together without being packed anew.
 */

/** The same bytes as `pack` of these fields with `boardOutline(board, seq, whole)` as `outline`. */
export function packWithBoard(
  fields: Readonly<Record<string, unknown>>,
  board: Board,
  seq: number,
  whole: ReadonlySet<Id>,
): Uint8Array {
  const { id, title, sheet, rules, unreadable } = board;
  const pages = [...board.pages.values()].map((page) =>
    whole.has(page.id) ? packedPage(page) : packedFrame(page),
  );
  return joined([
    ...mapOf(fields, 1),
    pack('outline'),
    ...mapOf({ id, title, sheet, rules, seq, unreadable }, 1),
    pack('pages'),
    listHead(pages.length),
    ...pages,
  ]);
}

/** The same bytes as `pack` of these fields with these pages' snapshots as `pages`. */
export function packWithPages(
  fields: Readonly<Record<string, unknown>>,
  pages: readonly Page[],
): Uint8Array {
  return joined([
    ...mapOf(fields, 1),
    pack('pages'),
    listHead(pages.length),
    ...pages.map(packedPage),
  ]);
}

const packedPage = onceFor((page: Page) => pack(pageSnapshot(page)));
const packedFrame = onceFor((page: Page) => pack(pageFrame(page)));

/** Pages are never changed: what is made of one holds for as long as it is there. */
function onceFor(make: (page: Page) => Uint8Array): (page: Page) => Uint8Array {
  const made = new WeakMap<Page, Uint8Array>();
  return (page) => {
    let bytes = made.get(page);
    if (!bytes) made.set(page, (bytes = make(page)));
    return bytes;
  };
}

/** The beginning of a map with these entries and `more` of them to follow. */
function mapOf(fields: Readonly<Record<string, unknown>>, more: number): Uint8Array[] {
  const entries = Object.entries(fields).filter(([, value]) => value !== undefined);
  // Up to 15 entries stand in the head itself; no message of ours has as many.
  return [
    Uint8Array.of(0x80 | (entries.length + more)),
    ...entries.flatMap(([key, value]) => [pack(key), pack(value)]),
  ];
}

function listHead(count: number): Uint8Array {
  if (count < 16) return Uint8Array.of(0x90 | count);
  if (count < 0x10000) return Uint8Array.of(0xdc, count >> 8, count & 0xff);
  return Uint8Array.of(0xdd, count >>> 24, (count >> 16) & 0xff, (count >> 8) & 0xff, count & 0xff);
}

function joined(parts: readonly Uint8Array[]): Uint8Array {
  const all = new Uint8Array(parts.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const part of parts) {
    all.set(part, at);
    at += part.length;
  }
  return all;
}
