import { PDFName } from '@cantoo/pdf-lib';
import type { PDFDict } from '@cantoo/pdf-lib';
import { layOutText, MAX_TEXT, SLIP_EDGE, ItemSpec } from '@cuaderno/core';
import type { Measure, RichText } from '@cuaderno/core';
import { dictOf, nameOf, textOf } from '../pdf-source/values.js';
import { whenOf } from './dates.js';
import type { Own } from './own.js';
import { isOutOfSight } from './parse.js';

/** What one person said on a page, or answered. */
export interface StickyNote {
  readonly author: string;
  /** When, as the file says it; empty where it doesn't. */
  readonly when: string;
  readonly words: string;
}

/** A talk about a place on a page: what was said there first, and the answers, in order. */
export interface Comment {
  /** What it was said about; a note that stands for itself is that. */
  readonly root: PDFDict;
  /** All annotations of which it is made, but for the root where that is more than a note. */
  readonly parts: readonly PDFDict[];
  readonly notes: readonly StickyNote[];
}

/** Annotations that are nothing but a note. */
export const NOTES = ['Text', 'Caret'];
/** Kinds whose words are a comment on what they mark, and not what is seen of them. */
const COMMENTED = [
  ...NOTES,
  ...['Highlight', 'Underline', 'StrikeOut', 'Squiggly', 'Ink'],
  ...['Square', 'Circle', 'Line', 'PolyLine', 'Polygon', 'Stamp'],
];
/** Answers to answers, at most. */
const DEEPEST = 100;

/** Comments on a page, in the order of its list. `isOurs`: what we wrote has words for programs, not comments. */
export function commentsOn(
  list: readonly PDFDict[],
  isOurs: (dict: PDFDict) => boolean,
): Comment[] {
  const roots = new Map<PDFDict, { root: PDFDict; parts: PDFDict[]; notes: StickyNote[] }>();
  const talkOf = (root: PDFDict): { root: PDFDict; parts: PDFDict[]; notes: StickyNote[] } => {
    let talk = roots.get(root);
    if (!talk) roots.set(root, (talk = { root, parts: [], notes: [] }));
    return talk;
  };
  const add = (dict: PDFDict, root: PDFDict): void => {
    const words = textOf(dict, 'Contents').replace(/\r\n?/g, '\n').trim();
    if (words === '' || saysItself(dict, words)) return;
    const when = whenOf(textOf(dict, 'M') || textOf(dict, 'CreationDate'));
    talkOf(root).notes.push({ author: textOf(dict, 'T').trim(), when, words });
  };
  const there = new Set(list);
  for (const dict of list) {
    const kind = nameOf(dict, 'Subtype') ?? '';
    if (isOutOfSight(dict) || !COMMENTED.includes(kind)) continue;
    const root = rootOf(dict);
    if (root !== dict && there.has(root)) {
      talkOf(root).parts.push(dict);
      // What only says that something was read or agreed to has a model of states (12.5.6.3).
      if (!dict.has(PDFName.of('StateModel'))) add(dict, root);
    } else if (!isOurs(dict)) {
      if (NOTES.includes(kind)) talkOf(dict).parts.push(dict);
      add(dict, dict);
    }
  }
  return [...roots.values()].filter(({ notes }) => notes.length > 0);
}

/** Whether the words of a stamp are those that are read on it: what it is called, or is about (12.5.6.12, 12.5.6.2). */
function saysItself(dict: PDFDict, words: string): boolean {
  if (nameOf(dict, 'Subtype') !== 'Stamp') return false;
  const plain = (text: string): string => text.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');
  return [nameOf(dict, 'Name') ?? '', textOf(dict, 'Subj')].some(
    (name) => plain(name) === plain(words),
  );
}

/** What an answer is about in the end (12.5.6.2). */
function rootOf(dict: PDFDict): PDFDict {
  let root = dict;
  for (let i = 0; i < DEEPEST; i++) {
    const next = dictOf(root, 'IRT');
    if (!next || nameOf(root, 'RT') === 'Group') return root;
    root = next;
  }
  return root;
}

const WIDTH = 150;
/** Of the words of a comment, in points. */
export const COMMENT_SIZE = 9;
const COLOUR = '#fff3b0';
const INK = '#1f2328';
/** Room between slips, and beside what they are about, in points. */
const GAP = 6;

/** Lays comments on a page, each on a slip beside what it is about; none lies on another where there is room. */
export class Slips {
  private readonly taken: { x: number; y: number; height: number }[] = [];

  /** @param page in points */
  constructor(
    private readonly page: { readonly width: number; readonly height: number },
    private readonly measure: Measure,
  ) {}

  /** @param at the upper right corner of what it is about, in points from the page's top left */
  lay({ notes }: Comment, at: { readonly x: number; readonly y: number }): Own {
    const text = textFrom(notes);
    const inner = { size: COMMENT_SIZE, width: WIDTH - 2 * SLIP_EDGE, align: 'start' } as const;
    const layout = layOutText(text, inner, this.measure);
    const height = layout.height + 2 * SLIP_EDGE;
    const place = this.free(
      clamp(at.x + GAP, this.page.width - WIDTH - GAP),
      clamp(at.y, this.page.height - height - GAP),
      height,
    );
    const item = {
      ...{ kind: 'text', layer: 'ink', order: 'a0', hidden: true },
      frame: { ...place, width: WIDTH, height, turn: 0 },
      ...{ text, font: 'plain', size: COMMENT_SIZE, colour: INK, align: 'start', slip: COLOUR },
      lines: layout.lines.map(({ y, runs }) => ({
        y: y + SLIP_EDGE,
        runs: runs.map((run) => ({ ...run, x: run.x + SLIP_EDGE })),
      })),
    };
    return { kind: 'placed', spec: ItemSpec.parse(item) };
  }

  private free(x: number, wished: number, height: number): { x: number; y: number } {
    let y = wished;
    // Below those that lie there, as long as the page goes.
    for (const other of [...this.taken].sort((a, b) => a.y - b.y))
      if (Math.abs(other.x - x) < WIDTH && y < other.y + other.height + GAP && other.y < y + height)
        y = other.y + other.height + GAP;
    if (y + height > this.page.height) y = wished;
    this.taken.push({ x, y, height });
    return { x, y };
  }
}

function textFrom(notes: readonly StickyNote[]): RichText {
  const text: { runs: { text: string; bold?: true }[] }[] = [];
  let room = MAX_TEXT - 2000;
  for (const { author, when, words } of notes) {
    const head = [author.slice(0, 100), when].filter(Boolean).join(', ');
    if (head) text.push({ runs: [{ text: head, bold: true }] });
    for (const line of words.slice(0, Math.max(0, room)).split('\n'))
      text.push({ runs: line === '' ? [] : [{ text: line }] });
    room -= words.length + head.length;
    if (room <= 0) break;
  }
  return text;
}

function clamp(n: number, most: number): number {
  return Math.max(0, Math.min(n, most));
}
