import type { PDFDocumentProxy } from './engine.js';

/** Longest name of a page, in characters. */
const MAX_NAME = 200;
/** Entries of an outline that are looked at: a handbook has a tenth of it. */
const MAX_ENTRIES = 5000;

type Outline = Awaited<ReturnType<PDFDocumentProxy['getOutline']>>;

/**
 * What the file itself calls its pages, by their number from 1: as its outline does (ISO 32000-1,
 * 12.3.3), the first entry of each page being its name; else as its page labels do (12.4.2), where
 * they say more than the number.
 */
export async function pageNames(doc: PDFDocumentProxy): Promise<Map<number, string>> {
  const names = new Map<number, string>();
  const labels = await doc.getPageLabels().catch(() => null);
  labels?.forEach((label, i) => {
    const name = tidy(label);
    if (name !== '' && name !== String(i + 1)) names.set(i + 1, name);
  });
  const titled = new Set<number>();
  for (const { title, dest } of flat(await doc.getOutline().catch(() => null))) {
    const number = await pageOf(doc, dest).catch(() => null);
    const name = tidy(title);
    if (number === null || name === '' || titled.has(number)) continue;
    titled.add(number);
    names.set(number, name);
  }
  return names;
}

/** Entries in the order in which they are read, those within others after them. */
function flat(outline: Outline | null): Outline {
  const list: Outline = [];
  const waiting = [...(outline ?? [])].reverse();
  for (let entry = waiting.pop(); entry && list.length < MAX_ENTRIES; entry = waiting.pop()) {
    list.push(entry);
    waiting.push(...[...(entry.items as Outline)].reverse());
  }
  return list;
}

async function pageOf(doc: PDFDocumentProxy, dest: unknown): Promise<number | null> {
  const place: unknown = typeof dest === 'string' ? await doc.getDestination(dest) : dest;
  if (!Array.isArray(place)) return null;
  const [page] = place as unknown[];
  if (typeof page === 'number') return page + 1;
  if (typeof page !== 'object' || page === null) return null;
  return (await doc.getPageIndex(page as { num: number; gen: number })) + 1;
}

function tidy(name: string): string {
  const seen = name
    .normalize('NFC')
    .replace(/[\p{Cc}\u2028\u2029\u202a-\u202e\u2066-\u2069]/gu, ' ');
  return [...seen.replace(/\s+/g, ' ').trim()].slice(0, MAX_NAME).join('');
}
