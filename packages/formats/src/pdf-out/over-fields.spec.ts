import { PDFArray, PDFDict, PDFDocument, PDFHexString, PDFName, rgb } from '@cantoo/pdf-lib';
import type { PDFPage } from '@cantoo/pdf-lib';
import { apply, BoardDraft, emptyBoard, encodeStroke, newId, operation } from '@cuaderno/core';
import type { Board, PageSpec } from '@cuaderno/core';
import { somePages } from '@cuaderno/core/testing';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { deflateSync } from 'node:zlib';
import { testFonts } from '../testing/fonts.js';
import { DRAWN_BY, pixelsOf } from '../testing/pixels.js';
import { boardPdf } from './index.js';
import type { BoardPdfOptions } from './index.js';

const HASH = 'a'.repeat(64);
const folder = mkdtempSync(join(tmpdir(), 'cuaderno-over-fields-'));

/** Where fields lie, from the top, and what kind each is. */
const FIELDS = {
  text: 20,
  tick: 60,
  choice: 100,
  list: 140,
  several: 180,
  button: 220,
  signature: 260,
} as const;
const HIGH = 30;

/** A worksheet with a field of every kind, each on an opaque ground, and as many pages. */
async function worksheet(pages = 1): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  const form = doc.getForm();
  for (let i = 0; i < pages; i++) {
    const page = doc.addPage([300, 400]);
    page.drawText(`Sheet ${i + 1}`, { x: 200, y: 20, size: 10 });
    const at = (top: number) => ({
      ...{ x: 20, y: 400 - top - HIGH, width: 160, height: HIGH, borderWidth: 1 },
      backgroundColor: rgb(0.9, 0.95, 1),
      borderColor: rgb(0, 0, 0),
    });
    const text = form.createTextField(`name${i}`);
    text.setText('Ida fills in');
    text.addToPage(page, at(FIELDS.text));
    const tick = form.createCheckBox(`tick${i}`);
    tick.addToPage(page, at(FIELDS.tick));
    tick.check();
    const choice = form.createRadioGroup(`choice${i}`);
    choice.addOptionToPage('high', page, at(FIELDS.choice));
    choice.select('high');
    const list = form.createDropdown(`list${i}`);
    list.addOptions(['Ebb', 'Flood']);
    list.select('Flood');
    list.addToPage(page, at(FIELDS.list));
    const several = form.createOptionList(`several${i}`);
    several.addOptions(['Spring', 'Neap']);
    several.select('Neap');
    several.addToPage(page, at(FIELDS.several));
    form.createButton(`button${i}`).addToPage('Send it', page, at(FIELDS.button));
    signature(doc, page, `signed${i}`, [20, 400 - FIELDS.signature - HIGH]);
  }
  return doc.save();
}

/** A field for a signature, with a look (ISO 32000-1, 12.7.4.5). */
function signature(doc: PDFDocument, page: PDFPage, name: string, [x, y]: [number, number]): void {
  const { context, catalog } = doc;
  const look = context.stream('0.9 0.95 1 rg 0 0 160 30 re f', {
    ...{ Type: 'XObject', Subtype: 'Form', BBox: [0, 0, 160, HIGH] },
  });
  const ref = context.register(
    context.obj({
      ...{ Type: 'Annot', Subtype: 'Widget', FT: 'Sig', F: 4 },
      ...{
        T: PDFHexString.fromText(name),
        Rect: [x, y, x + 160, y + HIGH],
        AP: { N: context.register(look) },
      },
    } as never),
  );
  page.node.addAnnot(ref);
  const form = catalog.lookup(PDFName.of('AcroForm'), PDFDict);
  form.lookup(PDFName.of('Fields'), PDFArray).push(ref);
}

function pagesOf(numbers: readonly number[]): PageSpec[] {
  const keys = somePages(numbers.length);
  return numbers.map((number, i) => ({
    ...keys[i]!,
    ...{ width: 300, height: 400 },
    paper: { kind: 'pdf', file: HASH, number, box: [0, 0, 300, 400], rotate: 0, unit: 1 },
  }));
}

/** A board with a line across each of these places, on its first page. */
function boardWith(pages: PageSpec[], lines: readonly number[]): Board {
  const draft = new BoardDraft(emptyBoard(newId()));
  const stamp = { by: newId(), at: 1, lesson: null };
  apply(operation({ kind: 'pages.add', pages }), draft, stamp);
  for (const y of lines) {
    const points = [30, 100, 170].map((x, i) => ({ x, y, pressure: 0.5, time: i * 10 }));
    const ink = encodeStroke({ style: { tool: 'pen', ink: 'poppy', width: 6 }, points });
    apply(operation({ kind: 'ink.add', page: pages[0]!.id, ink }), draft, stamp);
  }
  return draft.done();
}

const made = (
  board: Board,
  bytes: Uint8Array,
  options: Partial<BoardPdfOptions> = {},
): Promise<Uint8Array> =>
  boardPdf(board, {
    ...{ title: 'Worksheet', author: 'Maren', date: new Date(0), fonts: testFonts },
    ...{ file: () => Promise.resolve(bytes), deflate: deflateSync },
    ...options,
  });

const isRed = ([r, g, b]: readonly [number, number, number]): boolean =>
  r > 150 && g < 110 && b < 110;

function run(command: string, pdf: Uint8Array, ...args: string[]): string {
  const path = join(folder, `${newId()}.pdf`);
  writeFileSync(path, pdf);
  return execFileSync(command, [
    ...args,
    path,
    ...(command === 'pdftotext' ? ['-'] : []),
  ]).toString();
}

/** How many fields pdf-lib finds in the file's form. */
async function fieldsIn(pdf: Uint8Array): Promise<number> {
  const doc = await PDFDocument.load(pdf);
  return doc.catalog.has(PDFName.of('AcroForm')) ? doc.getForm().getFields().length : 0;
}

describe('ink over a form that was filled in (drawn by poppler and by MuPDF)', () => {
  const lines = Object.values(FIELDS).map((top) => top + HIGH / 2);

  for (const [how, numbers] of [
    ['in the file’s own order', [1]],
    ['with pages put together anew', [2, 1]],
  ] as const) {
    it(`lies above fields of every kind, ${how}`, async () => {
      const sheet = await worksheet(numbers.length);
      const pdf = await made(boardWith(pagesOf(numbers), lines), sheet);
      run('qpdf', pdf, '--check');
      for (const program of DRAWN_BY) {
        const pixels = pixelsOf(pdf, 1, program);
        for (const y of lines)
          expect(isRed(pixels.at(100, y)))
            .withContext(`${program}, at ${y}`)
            .toBeTrue();
        // What was filled in is seen beside it, and so is the field's ground.
        const [r, g, b] = pixels.at(176, FIELDS.text + 4);
        expect(b).toBeGreaterThan(r);
        expect(g).toBeGreaterThan(200);
      }
      const words = run('pdftotext', pdf);
      for (const word of ['Ida fills in', 'Flood', 'Neap', 'Send it'])
        expect(words).toContain(word);
    });
  }

  it('leaves fields on pages on which nothing is written', async () => {
    const sheet = await worksheet(2);
    expect(await fieldsIn(await made(boardWith(pagesOf([1, 2]), [lines[0]!]), sheet))).toBe(7);
    expect(await fieldsIn(await made(boardWith(pagesOf([1, 2]), []), sheet))).toBe(14);
  });

  it('lies above them as annotations, too', async () => {
    const board = boardWith(pagesOf([1]), lines);
    const pdf = await made(board, await worksheet(), { ink: 'annotations' });
    for (const program of DRAWN_BY)
      for (const y of lines) expect(isRed(pixelsOf(pdf, 1, program).at(100, y))).toBeTrue();
    expect(await fieldsIn(pdf)).toBe(0);
  });

  it('shows what is filled in where the file leaves its look to others', async () => {
    const doc = await PDFDocument.load(await worksheet());
    doc
      .getForm()
      .getTextField('name0')
      .acroField.dict.set(PDFName.of('V'), PDFHexString.fromText('Jonas was here'));
    doc.catalog
      .lookup(PDFName.of('AcroForm'), PDFDict)
      .set(PDFName.of('NeedAppearances'), doc.context.obj(true));
    for (const field of doc.getForm().getFields())
      for (const widget of field.acroField.getWidgets())
        if (field.getName() === 'name0') widget.dict.delete(PDFName.of('AP'));
    const bytes = await doc.save({ updateFieldAppearances: false });
    const pdf = await made(boardWith(pagesOf([1]), lines), bytes);
    expect(run('pdftotext', pdf)).toContain('Jonas was here');
  });

  it('lies above a stamp that it crosses; another stays as it came, and a comment is never lost', async () => {
    const doc = await PDFDocument.create();
    const page = doc.addPage([300, 400]);
    const { context } = doc;
    for (const [name, top, comment] of [
      ['crossed', 20, ''],
      ['commented', 100, 'Well read'],
      ['apart', 200, ''],
    ] as const) {
      const look = context.stream('0 0 1 rg 0 0 160 30 re f', {
        ...{ Type: 'XObject', Subtype: 'Form', BBox: [0, 0, 160, HIGH] },
      });
      const at = [20, 400 - top - HIGH, 180, 400 - top];
      const stamp = { Type: 'Annot', Subtype: 'Stamp', Rect: at, F: 4, Name: name };
      page.node.addAnnot(
        context.register(
          context.obj({
            ...{ ...stamp, AP: { N: context.register(look) } },
            ...(comment ? { Contents: PDFHexString.fromText(comment) } : {}),
          } as never),
        ),
      );
    }
    const pdf = await made(boardWith(pagesOf([1]), [35, 115]), await doc.save());
    for (const program of DRAWN_BY) {
      const pixels = pixelsOf(pdf, 1, program);
      for (const y of [35, 115]) expect(isRed(pixels.at(100, y))).toBeTrue();
      for (const y of [24, 104, 204]) expect([...pixels.at(100, y)]).toEqual([0, 0, 255]);
    }
    const out = await PDFDocument.load(pdf);
    const stays = out
      .getPage(0)
      .node.Annots()!
      .asArray()
      .map((ref) => out.context.lookup(ref, PDFDict).lookup(PDFName.of('Name'))?.toString());
    expect(stays).toEqual(['/commented', '/apart']);
  });
});
