import { PDFDocument, PDFHexString, PDFName, PDFString } from '@cantoo/pdf-lib';
import { pack } from '@cuaderno/core';
import type { ItemSpec } from '@cuaderno/core';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { inflateSync } from 'node:zlib';
import { measureWith } from '../pdf-out/index.js';
import { testFonts } from '../testing/fonts.js';
import { listedByPoppler } from '../testing/poppler.js';
import { mayHaveAnnotations } from './may-have-annotations.js';
import { takeAnnotations } from './index.js';
import type { Taken } from './index.js';

const folder = mkdtempSync(join(tmpdir(), 'cuaderno-elsewhere-'));
const measure = await measureWith(testFonts, 'plain');
const tools = {
  inflate: (bytes: Uint8Array): Uint8Array => inflateSync(bytes),
  find: (bytes: Uint8Array, word: string, from: number): number =>
    Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length).indexOf(word, from, 'latin1'),
};
const take = (bytes: Uint8Array): Promise<Taken | null> => takeAnnotations(bytes, { measure });

/** A file of one page, 300 × 400, with these annotations as another program might write them. */
async function elsewhere(...annotations: object[]): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  const page = doc.addPage([300, 400]);
  const list = annotations.map((entries) =>
    doc.context.register(doc.context.obj({ Type: 'Annot', ...entries } as never)),
  );
  page.node.set(PDFName.of('Annots'), doc.context.obj(list));
  return doc.save();
}

describe('annotations that were made elsewhere', () => {
  it('become ink and texts of ours where they lie, and are no longer in the file', async () => {
    const file = await elsewhere(
      {
        Subtype: 'Ink',
        Rect: [10, 10, 110, 60],
        InkList: [
          [10, 10, 60, 60, 110, 10],
          [20, 20, 30, 20],
        ],
        C: [1, 0, 0],
        BS: { W: 2 },
      },
      {
        Subtype: 'Highlight',
        Rect: [50, 300, 150, 320],
        QuadPoints: [50, 320, 150, 320, 50, 300, 150, 300],
        C: [1, 1, 0],
      },
      {
        Subtype: 'FreeText',
        Rect: [20, 200, 220, 240],
        Contents: PDFString.of('Half tide'),
        DA: PDFString.of('0 0 1 rg /Helv 16 Tf'),
        Q: 1,
        C: [1, 1, 0.8],
      },
      {
        Subtype: 'Square',
        Rect: [100, 100, 200, 150],
        C: [0, 0.5, 0],
        BS: { W: 4 },
        IC: [1, 1, 1],
      },
      {
        Subtype: 'Line',
        Rect: [0, 0, 100, 100],
        L: [10, 20, 90, 80],
        LE: [PDFName.of('OpenArrow'), PDFName.of('None')],
        C: [0, 0, 0],
      },
      { Subtype: 'Link', Rect: [0, 0, 10, 10] },
      { Subtype: 'Stamp', Rect: [0, 0, 10, 10], Name: PDFName.of('Approved') },
    );
    expect(mayHaveAnnotations(file, tools)).toBeTrue();
    const taken = (await take(file))!;
    expect([taken.count, taken.stayed]).toEqual([5, 1]);
    const items = taken.pages.get(1)!;
    const kinds: string[] = items.map((item) => (item.kind === 'ink' ? 'ink' : item.spec.kind));
    expect(kinds).toEqual([...['ink', 'ink', 'ink', 'text', 'shape', 'shape']]);
    const placed = items.flatMap((item) => (item.kind === 'placed' ? [item.spec] : []));
    const [text, box, arrow] = placed as [ItemSpec, ItemSpec, ItemSpec];
    expect(text).toEqual(
      jasmine.objectContaining({
        size: 16,
        colour: '#0000ff',
        align: 'middle',
        slip: '#ffffcc',
      }) as never,
    );
    expect(text.frame).toEqual({ x: 20, y: 160, width: 200, height: 40, turn: 0 });
    // A border of 4 is drawn within its rectangle: its middle is 2 from the edge.
    expect(box.frame).toEqual({ x: 102, y: 252, width: 96, height: 46, turn: 0 });
    expect(arrow.kind === 'shape' && [arrow.heads, arrow.points]).toEqual([
      'end',
      [
        [1, 0],
        [0, 1],
      ],
    ]);
    const left = join(folder, 'left.pdf');
    writeFileSync(left, taken.file!);
    execFileSync('qpdf', ['--check', left]);
    expect(listedByPoppler(left).map(({ kind }) => kind)).toEqual(['link', 'stamp']);
    expect(
      execFileSync('qpdf', ['--qdf', '--object-streams=disable', left, '-']).toString('latin1'),
    ).not.toContain('Half tide');
  });

  it('that are broken stay as they are, and cost none of the others', async () => {
    const far = { Subtype: 'Ink', Rect: [0, 0, 9, 9], InkList: [[1e9, 0, 5, 5]] };
    const file = await elsewhere(
      { Subtype: 'Ink', Rect: [0, 0, 9, 9] },
      { Subtype: 'Ink', Rect: [0, 0, 9, 9], InkList: [['a', 'b']] },
      { Subtype: 'Ink', Rect: [0, 0], InkList: [[1, 2, 3, 4]] },
      { Subtype: 'Highlight', Rect: [0, 0, 9, 9], QuadPoints: [1, 2, 3] },
      { Subtype: 'Line', Rect: [0, 0, 9, 9], L: 'nowhere' },
      { Subtype: 'FreeText', Rect: [0, 0, 9, 9], DA: 7 },
      far,
      { Subtype: 'Square', Rect: [10, 10, 60, 60], C: [1] },
      { CuaItem: PDFString.of('\x01\x02'), CuaSeal: 1, Subtype: 'Circle', Rect: [10, 10, 60, 60] },
    );
    const taken = (await take(file))!;
    expect([taken.count, taken.stayed]).toEqual([2, 7]);
    expect(await take(new TextEncoder().encode('%PDF-1.7 and nothing else %%EOF'))).toBeNull();
  });

  it('can’t bring in files that aren’t theirs', async () => {
    const picture: ItemSpec = {
      kind: 'picture',
      file: 'c'.repeat(64),
      frame: { x: 10, y: 10, width: 50, height: 50, turn: 0 },
      ...{ order: 'a0', layer: 'ink' },
    };
    const own = `03${Buffer.from(pack(picture)).toString('hex')}`;
    const doc = await PDFDocument.create();
    const page = doc.addPage([300, 400]);
    const annotation = doc.context.obj({
      Type: 'Annot',
      Subtype: 'Stamp',
      Rect: [10, 340, 60, 390],
      CuaItem: PDFHexString.of(own),
      CuaSeal: 0,
    });
    page.node.set(PDFName.of('Annots'), doc.context.obj([doc.context.register(annotation)]));
    expect(await take(await doc.save())).toBeNull();
  });

  it('are looked for where objects lie compressed, and a file without any is left alone', async () => {
    const plain = await elsewhere();
    expect(mayHaveAnnotations(plain, tools)).toBeFalse();
    const doc = await PDFDocument.load(
      await elsewhere({ Subtype: 'Ink', Rect: [0, 0, 9, 9], InkList: [[1, 2, 3, 4]] }),
    );
    const packed = await doc.save({ useObjectStreams: true });
    expect(Buffer.from(packed).includes('/Ink')).toBeFalse();
    expect(mayHaveAnnotations(packed, tools)).toBeTrue();
  });
});
