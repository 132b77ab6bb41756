import { degrees, PDFDict, PDFDocument, PDFHexString, PDFName, PDFString } from '@cantoo/pdf-lib';
import type { PDFRef } from '@cantoo/pdf-lib';
import { plainText } from '@cuaderno/core';
import type { TextSpec } from '@cuaderno/core';
import { inflateSync } from 'node:zlib';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { mayHaveAnnotations } from './may-have-annotations.js';
import { measureWith } from '../pdf-out/index.js';
import { testFonts } from '../testing/fonts.js';
import { listedByPoppler } from '../testing/poppler.js';
import { timeOf, whenOf } from './dates.js';
import { takeAnnotations } from './index.js';
import type { Taken } from './index.js';

const folder = mkdtempSync(join(tmpdir(), 'cuaderno-comments-'));
const measure = await measureWith(testFonts, 'plain');
const take = (bytes: Uint8Array): Promise<Taken | null> => takeAnnotations(bytes, { measure });
const words = (text: string): PDFHexString => PDFHexString.fromText(text);

const TOOLS = {
  inflate: (bytes: Uint8Array) => inflateSync(bytes),
  find: (bytes: Uint8Array, word: string, from: number) =>
    Buffer.from(bytes).indexOf(word, from, 'latin1'),
};

type Entries = Record<string, unknown>;

/** A file of one page, 300 × 400, on which others have written; `answers` get the references of those before them. */
async function file(
  rotate: number,
  ...annotations: (Entries | ((before: readonly PDFRef[]) => Entries))[]
): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  const page = doc.addPage([300, 400]);
  page.setRotation(degrees(rotate));
  const refs: PDFRef[] = [];
  for (const given of annotations) {
    const entries = typeof given === 'function' ? given(refs) : given;
    refs.push(doc.context.register(doc.context.obj({ Type: 'Annot', ...entries } as never)));
  }
  page.node.set(PDFName.of('Annots'), doc.context.obj(refs));
  return doc.save();
}

const note = (x: number, y: number, text: string, more: Entries = {}): Entries => ({
  ...{ Subtype: 'Text', Rect: [x, y, x + 20, y + 20], Contents: words(text) },
  ...{ T: words('Nils Aas'), M: PDFString.of("D:20260503140500+02'00'"), ...more },
});

function slipsOf(taken: Taken): TextSpec[] {
  return taken.pages
    .get(1)!
    .flatMap((item) =>
      item.kind === 'placed' && item.spec.kind === 'text' && item.spec.slip ? [item.spec] : [],
    );
}

function left(taken: Taken): string[] {
  const path = join(folder, `${Math.random()}.pdf`);
  writeFileSync(path, taken.file!);
  return listedByPoppler(path).map(({ kind }) => kind);
}

describe('comments of a PDF', () => {
  it('come as slips with their writers and times, answers below, hidden from students', async () => {
    const bytes = await file(
      0,
      note(20, 340, 'Is this the neap tide?'),
      ([root]) => note(0, 0, 'Yes, look\nat the moon.', { IRT: root, T: words('Ida'), M: '' }),
      ([, answer]) => note(0, 0, 'Thanks', { IRT: answer }),
      ([root]) => ({ Subtype: 'Popup', Rect: [0, 0, 99, 99], Parent: root }),
      ([root]) =>
        note(0, 0, 'Accepted set by Nils', { IRT: root, StateModel: words('Review'), State: '' }),
    );
    const taken = (await take(bytes))!;
    expect([taken.count, taken.comments, taken.stayed]).toEqual([0, 1, 0]);
    const [slip] = slipsOf(taken);
    expect(plainText(slip!.text)).toBe(
      [
        ...['Nils Aas, 3 May 2026, 14:05', 'Is this the neap tide?'],
        ...['Ida', 'Yes, look', 'at the moon.', 'Nils Aas, 3 May 2026, 14:05', 'Thanks'],
      ].join('\n'),
    );
    expect(slip!.hidden).toBeTrue();
    // Beside the note, which is at 20 to 40 from the left and 40 from the top.
    expect([slip!.frame.x, slip!.frame.y]).toEqual([46, 40]);
    expect(left(taken)).toEqual([]);
  });

  it('on highlighted and underlined words come with what marks them', async () => {
    const on = (kind: string, y: number): Entries => ({
      ...{ Subtype: kind, Rect: [50, y, 150, y + 14], C: [1, 0, 0] },
      QuadPoints: [50, y + 14, 150, y + 14, 50, y, 150, y],
      ...{ Contents: words(`On ${kind}`), T: words('Nils Aas') },
    });
    const kinds = ['Highlight', 'Underline', 'StrikeOut', 'Squiggly'];
    const taken = (await take(await file(0, ...kinds.map((kind, i) => on(kind, 300 - 60 * i)))))!;
    expect([taken.count, taken.comments]).toEqual([4, 4]);
    expect(slipsOf(taken).map(({ text }) => plainText(text))).toEqual(
      kinds.map((kind) => `Nils Aas\nOn ${kind}`),
    );
    expect(taken.pages.get(1)!.filter(({ kind }) => kind === 'ink').length).toBe(4);
    expect(left(taken)).toEqual([]);
  });

  it('lie beside one another, on the page, whichever way it is turned', async () => {
    for (const rotate of [0, 90, 180, 270]) {
      const notes = [270, 275, 268].map((x) => note(x, 10, 'Far out in a corner of the page'));
      const slips = slipsOf((await take(await file(rotate, ...notes)))!);
      const [width, height] = rotate % 180 === 0 ? [300, 400] : [400, 300];
      const frames = slips.map(({ frame }) => frame);
      expect(frames.length).toBe(3);
      for (const { x, y, width: w, height: h } of frames) {
        expect(x >= 0 && x + w <= width).toBeTrue();
        expect(y >= 0 && y + h <= height).toBeTrue();
      }
    }
  });

  it('that are hidden, ours, or say nothing aren’t counted; attached files and stamps are reported', async () => {
    const bytes = await file(
      0,
      note(20, 340, 'Out of sight', { F: 2 }),
      note(20, 300, '  '),
      note(20, 200, 'Seen'),
      { Subtype: 'FileAttachment', Rect: [0, 0, 20, 20], Contents: words('notes.txt') },
      { Subtype: 'Stamp', Name: 'Approved', Rect: [0, 0, 20, 20], Contents: words('Approved') },
      { Subtype: 'Ink', Rect: [0, 0, 20, 20], InkList: [[1, 1, 9, 9]], F: 2 },
    );
    const taken = (await take(bytes))!;
    expect([taken.comments, taken.stayed, taken.attached]).toEqual([1, 2, 1]);
    expect(slipsOf(taken).map(({ text }) => plainText(text))).toEqual([
      'Nils Aas, 3 May 2026, 14:05\nSeen',
    ]);
  });

  it('on a stamp, which stays, come without it', async () => {
    const stamp = { Subtype: 'Stamp', Name: 'Draft', Rect: [20, 20, 80, 60], T: words('Nils Aas') };
    const bytes = await file(0, { ...stamp, Contents: words('Look at page 2 first') });
    const taken = (await take(bytes))!;
    expect([taken.count, taken.comments, taken.stayed]).toEqual([0, 1, 1]);
    expect(slipsOf(taken).map(({ text }) => plainText(text))).toEqual([
      'Nils Aas\nLook at page 2 first',
    ]);
    // Brought once more, it is said once.
    expect(await take(taken.file!)).toBeNull();
  });

  it('are not all: files attached to a PDF are reported where nothing else is to be', async () => {
    const doc = await PDFDocument.load(await file(0));
    await doc.attach(new Uint8Array([1, 2, 3]), 'tides.csv', { mimeType: 'text/csv' });
    const bytes = await doc.save();
    const taken = (await take(bytes))!;
    expect([taken.file, taken.attached, taken.count]).toEqual([null, 1, 0]);
    expect(mayHaveAnnotations(bytes, TOOLS)).toBeTrue();
    expect(mayHaveAnnotations(await file(0), TOOLS)).toBeFalse();
  });

  it('that answer themselves, or have no place, cost nothing but themselves', async () => {
    const doc = await PDFDocument.load(await file(0, note(20, 340, 'Round and round')));
    const list = doc.getPage(0).node.Annots()!;
    const ref = list.get(0) as PDFRef;
    doc.context.lookup(ref, PDFDict).set(PDFName.of('IRT'), ref);
    expect((await take(await doc.save()))!.comments).toBe(1);
    const nowhere = note(0, 0, 'Nowhere', { Rect: ['a', 0, 1, 1] });
    const taken = (await take(await file(0, nowhere, note(20, 20, 'x'.repeat(30_000)))))!;
    expect(taken.comments).toBe(1);
  });

  it('are looked for in the bytes of a file', async () => {
    const tools = {
      inflate: (bytes: Uint8Array): Uint8Array => inflateSync(bytes),
      find: (bytes: Uint8Array, word: string, from: number): number =>
        Buffer.from(bytes).indexOf(word, from, 'latin1'),
    };
    expect(mayHaveAnnotations(await file(0, note(20, 340, 'Here')), tools)).toBeTrue();
  });

  it('have the time that was on the writer’s clock', () => {
    expect(whenOf("D:20260503140500+02'00'")).toBe('3 May 2026, 14:05');
    expect(whenOf('20261231')).toBe('31 December 2026');
    for (const none of ['', 'yesterday', 'D:20261931']) expect(whenOf(none)).toBe('');
    expect(timeOf("D:20260503140500+02'00'")).toBe(Date.UTC(2026, 4, 3, 12, 5));
    expect(timeOf('D:20260503140500-0330')).toBe(Date.UTC(2026, 4, 3, 17, 35));
    expect(timeOf('20261231')).toBe(Date.UTC(2026, 11, 31));
    expect(timeOf('D:2026')).toBe(Date.UTC(2026, 0, 1));
    expect(timeOf('yesterday')).toBeNull();
  });
});

describe('texts of a PDF that are written across', () => {
  const text = (more: Entries = {}): Entries => ({
    ...{ Subtype: 'FreeText', Rect: [20, 200, 60, 300], Contents: words('Along the edge') },
    ...{ DA: PDFString.of('0 g /Helv 10 Tf'), ...more },
  });
  const frameOf = async (bytes: Uint8Array): Promise<TextSpec['frame']> => {
    const [item] = (await take(bytes))!.pages.get(1)!;
    return item!.kind === 'placed' ? item!.spec.frame : (undefined as never);
  };

  it('are turned with their page', async () => {
    expect((await frameOf(await file(0, text()))).turn).toBe(0);
    expect((await frameOf(await file(90, text()))).turn).toBe(90);
    expect((await frameOf(await file(270, text()))).turn).toBe(270);
  });

  it('are turned as their look is, about their own middle', async () => {
    const doc = await PDFDocument.load(await file(90, text()));
    const look = doc.context.register(
      doc.context.stream('', { Type: 'XObject', Subtype: 'Form', Matrix: [0, 1, -1, 0, 0, 0] }),
    );
    const dict = doc.getPage(0).node.Annots()!.lookup(0, PDFDict);
    dict.set(PDFName.of('AP'), doc.context.obj({ N: look }));
    // Turned against the page’s own turn, it is upright again.
    const frame = await frameOf(await doc.save());
    expect(frame.turn).toBe(0);
    expect([frame.width, frame.height]).toEqual([100, 40]);
  });
});
