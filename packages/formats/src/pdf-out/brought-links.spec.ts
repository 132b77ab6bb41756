import { PDFArray, PDFDocument, PDFHexString, PDFName, PDFString } from '@cantoo/pdf-lib';
import type { PDFObject } from '@cantoo/pdf-lib';
import { apply, BoardDraft, emptyBoard, encodeStroke, newId, operation } from '@cuaderno/core';
import type { Board, PageSpec } from '@cuaderno/core';
import { somePages } from '@cuaderno/core/testing';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { deflateSync } from 'node:zlib';
import { getDocument, VerbosityLevel } from '../pdf-in/engine.js';
import { testFonts } from '../testing/fonts.js';
import { DRAWN_BY, pixelsOf } from '../testing/pixels.js';
import { boardPdf, separatePdf } from './index.js';

const folder = mkdtempSync(join(tmpdir(), 'cuaderno-brought-links-'));
const HASH = 'a'.repeat(64);
const PAGES = 5;

/** Where the contents of the book lead besides. */
const TABLES = 'https://tides.example/tables?of=Solvik';

/**
 * A book of five pages: on each a link to every page, by each of the three ways in which links say where they lead,
 * and one to the web; contents of two levels, labels, and all that is to stay behind.
 */
async function book(): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  const { context, catalog } = doc;
  const pages = Array.from({ length: PAGES }, (_, i) => {
    const page = doc.addPage([300, 400]);
    page.drawText(`Page number ${i + 1} of the book`, { x: 30, y: 350, size: 12 });
    return page;
  });
  const words = (text: string) => PDFHexString.fromText(text);
  const to = (i: number, view: unknown[] = ['Fit']) =>
    context.obj([pages[i]!.ref, ...view] as never);
  const link = (at: number, more: Record<string, unknown>) =>
    context.register(
      context.obj({
        ...{ Type: 'Annot', Subtype: 'Link', Border: [0, 0, 0] },
        ...{ Rect: [10, 10 + at * 20, 100, 25 + at * 20], ...more },
      } as never),
    );
  pages.forEach((page, i) => {
    for (let j = 0; j < PAGES; j++) {
      const ways: Record<string, unknown>[] = [
        { Dest: to(j, ['XYZ', 0, 300, 0]) },
        { A: { S: 'GoTo', D: words(`place-${j}`) } },
        { Dest: PDFName.of(`Old${j}`), P: page.ref },
      ];
      page.node.addAnnot(link(j, ways[(i + j) % 3]!));
    }
    page.node.addAnnot(link(9, { A: { S: 'URI', URI: PDFString.of('https://tides.example/') } }));
    page.node.addAnnot(link(10, { A: { S: 'JavaScript', JS: words('app.alert(1)') } }));
    page.node.addAnnot(link(11, { A: { S: 'Launch', F: words('run-me.exe') } }));
    page.node.addAnnot(link(12, { A: { S: 'URI', URI: PDFString.of('javascript:alert(2)') } }));
  });
  const names = Array.from({ length: PAGES }, (_, j) => [words(`place-${j}`), { D: to(j) }]).flat();
  const old = Object.fromEntries(Array.from({ length: PAGES }, (_, j) => [`Old${j}`, to(j)]));
  const script = { S: 'JavaScript', JS: words('app.alert("a script of the file")') };
  const hidden = context.register(context.stream('what is attached', { Type: 'EmbeddedFile' }));
  const attached = { Type: 'Filespec', F: words('secret.txt'), EF: { F: hidden } };
  catalog.set(PDFName.of('Dests'), context.obj(old as never));
  catalog.set(
    PDFName.of('Names'),
    context.obj({
      Dests: { Names: names },
      JavaScript: { Names: [words('start'), script] },
      EmbeddedFiles: { Names: [words('secret.txt'), attached] },
    } as never),
  );
  catalog.set(PDFName.of('OpenAction'), context.obj(script as never));
  pages[0]!.node.set(PDFName.of('AA'), context.obj({ O: script } as never));
  pages[0]!.node.addAnnot(
    context.register(
      context.obj({
        ...{ Type: 'Annot', Subtype: 'FileAttachment', Rect: [200, 200, 220, 220] },
        FS: attached,
      } as never),
    ),
  );
  catalog.set(
    PDFName.of('PageLabels'),
    context.obj({ Nums: [0, { S: 'r' }, 2, { S: 'D', P: words('A-'), St: 7 }] } as never),
  );
  const refs = Array.from({ length: 7 }, () => context.nextRef());
  const [root, part, one, two, last, web, bad] = refs as [(typeof refs)[0], ...typeof refs];
  const entry = (ref: (typeof refs)[0], title: string, more: object) =>
    context.assign(ref, context.obj({ Title: words(title), ...more } as never));
  entry(part!, 'First part', { Parent: root, First: one, Last: two, Count: -2, Next: last });
  entry(one!, 'Ebb', { Parent: part, Dest: to(0), Next: two });
  entry(two!, 'Flood', { Parent: part, Dest: to(1), Prev: one });
  entry(last!, 'Answers', {
    Parent: root,
    A: { S: 'GoTo', D: words('place-4') },
    Prev: part,
    Next: web,
  });
  const uri = (address: string) => ({ A: { S: 'URI', URI: PDFString.of(address) } });
  entry(web!, 'Tables', { Parent: root, Prev: last, Next: bad, ...uri(TABLES) });
  entry(bad!, 'Bad', { Parent: root, Prev: web, ...uri('javascript:alert(3)') });
  context.assign(root, context.obj({ Type: 'Outlines', First: part!, Last: bad!, Count: 4 }));
  catalog.set(PDFName.of('Outlines'), root);
  return doc.save();
}

/** A page of a board: the number of one of the file's, or `null` for an empty one. */
function boardOf(
  numbers: readonly (number | null | { file: string; number: number })[],
  line = false,
): Board {
  const keys = somePages(numbers.length);
  const pages = numbers.map((of, i): PageSpec => {
    const paper = { kind: 'pdf' as const, rotate: 0 as const, unit: 1 };
    const place = typeof of === 'number' ? { file: HASH, number: of } : of;
    return {
      ...keys[i]!,
      ...{ width: 300, height: 400, name: '' },
      paper: place ? { ...paper, ...place, box: [0, 0, 300, 400] } : { kind: 'plain' },
    };
  });
  const draft = new BoardDraft(emptyBoard(newId()));
  const stamp = { by: newId(), at: 1, lesson: null };
  apply(operation({ kind: 'pages.add', pages }), draft, stamp);
  const points = [30, 100].map((x) => ({ x, y: 60, pressure: 0.5, time: x }));
  const ink = encodeStroke({ style: { tool: 'pen', ink: 'poppy', width: 6 }, points });
  if (line) apply(operation({ kind: 'ink.add', page: pages[0]!.id, ink }), draft, stamp);
  return draft.done();
}

async function made(board: Board, files: Record<string, Uint8Array>): Promise<Uint8Array> {
  const pdf = await boardPdf(board, {
    ...{ title: 'Book', author: 'Maren', date: new Date(0), fonts: testFonts },
    ...{ file: (hash) => Promise.resolve(files[hash]!), deflate: deflateSync },
  });
  const path = join(folder, `${newId()}.pdf`);
  writeFileSync(path, pdf);
  execFileSync('qpdf', ['--check', path]);
  return pdf;
}

interface Seen {
  /** Of each page, the numbers of the pages to which its links lead, in order; `null` where they lead nowhere. */
  readonly links: readonly (readonly (number | null)[])[];
  readonly addresses: number;
  /** Title and number of the page or address, with those under it indented. */
  readonly outline: readonly string[];
  readonly labels: readonly string[] | null;
}

/** A file as pdf.js reads it. */
async function seen(pdf: Uint8Array): Promise<Seen> {
  const task = getDocument({ data: pdf.slice(), verbosity: VerbosityLevel.ERRORS });
  const doc = await task.promise;
  const numberOf = async (dest: unknown): Promise<number | null> => {
    const place = typeof dest === 'string' ? await doc.getDestination(dest) : dest;
    if (!Array.isArray(place)) return null;
    try {
      return (await doc.getPageIndex(place[0] as never)) + 1;
    } catch {
      return null;
    }
  };
  const links: (number | null)[][] = [];
  let addresses = 0;
  for (let n = 1; n <= doc.numPages; n++) {
    const all = (await (await doc.getPage(n)).getAnnotations()) as {
      subtype: string;
      url?: string;
      dest?: unknown;
    }[];
    const mine = all.filter(({ subtype }) => subtype === 'Link');
    addresses += mine.filter(({ url }) => url).length;
    links.push(
      await Promise.all(mine.filter(({ dest }) => dest).map(({ dest }) => numberOf(dest))),
    );
  }
  const outline: string[] = [];
  type Entry = { title: string; dest: unknown; url: string | null; items: Entry[] };
  const walk = async (entries: Entry[], indent: string): Promise<void> => {
    for (const { title, dest, url, items } of entries) {
      outline.push(`${indent}${title} ${url ?? String(await numberOf(dest))}`);
      await walk(items, `${indent}  `);
    }
  };
  await walk((await doc.getOutline()) ?? [], '');
  const labels = await doc.getPageLabels();
  await task.destroy();
  return { links, addresses, outline, labels };
}

/** All that a file holds, unpacked. */
function wholeText(pdf: Uint8Array): string {
  const path = join(folder, `${newId()}.pdf`);
  writeFileSync(path, pdf);
  return execFileSync('qpdf', ['--qdf', '--object-streams=disable', path, '-'], {
    maxBuffer: 1e8,
  }).toString('latin1');
}

describe('links, contents and labels of a brought PDF (read by pdf.js, checked by qpdf)', () => {
  let source: Uint8Array;
  beforeAll(async () => {
    source = await book();
  });

  it('are all there where the pages are as they were, with empty ones between, too', async () => {
    const whole = await seen(await made(boardOf([1, 2, 3, 4, 5], true), { [HASH]: source }));
    expect(whole.links).toEqual(Array.from({ length: 5 }, () => [1, 2, 3, 4, 5]));
    expect(whole.addresses).toBe(5);
    expect(whole.outline).toEqual([
      'First part null',
      '  Ebb 1',
      '  Flood 2',
      'Answers 5',
      `Tables ${TABLES}`,
    ]);
    expect(whole.labels).toEqual(['i', 'ii', 'A-7', 'A-8', 'A-9']);
    const more = await seen(await made(boardOf([1, null, 2, 3, 4, 5]), { [HASH]: source }));
    expect(more.links[0]).toEqual([1, 3, 4, 5, 6]);
    expect(more.outline).toEqual([
      'First part null',
      '  Ebb 1',
      '  Flood 3',
      'Answers 6',
      `Tables ${TABLES}`,
    ]);
    expect(more.labels).toEqual(['i', '2', 'ii', 'A-7', 'A-8', 'A-9']);
  });

  it('follow their pages where those are moved, copied and removed', async () => {
    const moved = await seen(await made(boardOf([5, 4, null, 1, 1]), { [HASH]: source }));
    // Two pages are gone, and what leads to them; of a page that is there twice the first is meant.
    const five = [4, 2, 1];
    expect(moved.links).toEqual([five, five, [], five, five]);
    expect(moved.addresses).toBe(4);
    expect(moved.outline).toEqual(['First part null', '  Ebb 4', 'Answers 1', `Tables ${TABLES}`]);
    expect(moved.labels).toEqual(['A-9', 'A-8', '3', 'i', 'i']);
  });

  it('come without pages that were removed, whatever leads to them', async () => {
    for (const numbers of [
      [1, 2, 3, 4],
      [4, 2],
    ]) {
      const text = wholeText(await made(boardOf(numbers), { [HASH]: source }));
      expect(text.match(/\/Type \/Page\b/g)?.length).toBe(numbers.length);
    }
  });

  it('come without what acts by itself and what is attached', async () => {
    for (const numbers of [
      [1, 2, 3, 4, 5],
      [2, 1],
    ]) {
      const text = wholeText(await made(boardOf(numbers, true), { [HASH]: source }));
      for (const word of ['JavaScript', 'Launch', 'OpenAction', 'EmbeddedFile', 'what is attached'])
        expect(text).not.toContain(word);
      expect(text).not.toContain('javascript:');
      expect(text).not.toContain('FileAttachment');
    }
  });

  it('leave the picture of a film that lies on a page', async () => {
    const doc = await PDFDocument.load(source);
    const { context } = doc;
    const form = { Type: 'XObject', Subtype: 'Form', BBox: [0, 0, 10, 10] };
    const look = context.register(context.stream('0 0 1 rg 0 0 10 10 re f', form));
    const film = { Type: 'Annot', Subtype: 'RichMedia', Rect: [100, 100, 200, 200] };
    doc
      .getPage(0)
      .node.addAnnot(context.register(context.obj({ ...film, AP: { N: look } } as never)));
    const bytes = await doc.save();
    for (const numbers of [
      [1, 2, 3, 4, 5],
      [1, 3],
    ]) {
      const pdf = await made(boardOf(numbers), { [HASH]: bytes });
      expect(wholeText(pdf)).not.toContain('RichMedia');
      for (const program of DRAWN_BY)
        expect([...pixelsOf(pdf, 1, program).at(150, 250)]).toEqual([0, 0, 255]);
    }
  });

  it('are whole again where pages were hidden in files of their own', async () => {
    const { rest, taken } = await separatePdf(source, [5]);
    // Nothing of a page that is hidden is in the other file: no words, no entry, no page.
    const inside = await seen(rest);
    expect(inside.links[0]).toEqual([1, 2, 3, 4]);
    expect(inside.outline).toEqual(['First part null', '  Ebb 1', '  Flood 2', `Tables ${TABLES}`]);
    expect(wholeText(rest)).not.toContain('Answers');
    const files = { ['b'.repeat(64)]: rest, ['c'.repeat(64)]: taken[0]! };
    const [first, other] = Object.keys(files) as [string, string];
    const pages = [1, 2, 3, 4].map((number) => ({ file: first, number }));
    const together = await made(boardOf([...pages, { file: other, number: 1 }]), files);
    const whole = await seen(together);
    expect(whole.links).toEqual(Array.from({ length: 5 }, () => [1, 2, 3, 4, 5]));
    expect(whole.outline).toEqual([
      ...['First part null', '  Ebb 1', '  Flood 2', `Tables ${TABLES}`, 'Answers 5'],
    ]);
    expect(whole.labels).toEqual(['i', 'ii', 'A-7', 'A-8', 'A-9']);
    // Taken apart once more, it still knows.
    const again = await separatePdf(rest, [2]);
    const third = { ...files, ['d'.repeat(64)]: again.rest, ['e'.repeat(64)]: again.taken[0]! };
    const [, , four, five] = Object.keys(third) as string[];
    const order = [
      ...[
        { file: five!, number: 1 },
        { file: other, number: 1 },
      ],
      ...[1, 3, 4].map((number) => ({ file: four!, number })),
    ];
    const last = await seen(await made(boardOf(order), third));
    expect(last.links).toEqual(Array.from({ length: 5 }, () => [3, 1, 4, 5, 2]));
  });

  it('of one page that lies on the board twice are each one’s own, and so is what is written on it', async () => {
    const doc = await PDFDocument.load(source);
    // Programs may write a page’s content in pieces.
    const { node } = doc.getPage(0);
    const content = node.get(PDFName.of('Contents'))!;
    const list = doc.context.obj([]);
    list.push(content instanceof PDFArray ? content.get(0) : content);
    node.set(PDFName.of('Contents'), list);
    const pdf = await made(boardOf([1, 1, 2], true), { [HASH]: await doc.save() });
    const out = await PDFDocument.load(pdf);
    const pieces = [0, 1].map((i) => {
      const of = out.getPage(i).node.lookup(PDFName.of('Contents')) as PDFObject;
      return of instanceof PDFArray ? of.size() : 1;
    });
    expect(pieces[0]).toBeGreaterThan(pieces[1]!);
  });

  it('leave what is hidden in a layer hidden', async () => {
    const doc = await PDFDocument.load(source);
    const { context, catalog } = doc;
    const layer = context.register(
      context.obj({ Type: 'OCG', Name: PDFHexString.fromText('Answers') } as never),
    );
    const shown = context.register(
      context.obj({ Type: 'OCG', Name: PDFHexString.fromText('Questions') } as never),
    );
    const layers = { OCGs: [layer, shown], D: { OFF: [layer], Order: [layer, shown] } };
    catalog.set(PDFName.of('OCProperties'), context.obj(layers as never));
    const { node } = doc.getPage(0);
    node.normalize();
    const properties = context.obj({ Hidden: layer, Shown: shown } as never);
    node.Resources()!.set(PDFName.of('Properties'), properties);
    const code =
      '/OC /Hidden BDC 1 0 0 rg 0 0 300 100 re f EMC /OC /Shown BDC 0 1 0 rg 0 100 300 100 re f EMC';
    node.addContentStream(context.register(context.stream(code)));
    const pdf = await made(boardOf([3, 1]), { [HASH]: await doc.save() });
    for (const program of DRAWN_BY) {
      const pixels = pixelsOf(pdf, 2, program);
      expect([...pixels.at(150, 350)]).toEqual([255, 255, 255]);
      expect([...pixels.at(150, 250)]).toEqual([0, 255, 0]);
    }
  });

  it('of files that lead in circles or nowhere cost nothing but themselves', async () => {
    const doc = await PDFDocument.load(source);
    const { context, catalog } = doc;
    const [a, b] = [context.nextRef(), context.nextRef()];
    const title = PDFHexString.fromText('Again');
    context.assign(
      a,
      context.obj({ Title: title, First: a, Last: b, Next: b, Dest: [a] } as never),
    );
    context.assign(b, context.obj({ Title: title, Next: a, Dest: PDFName.of('gone') } as never));
    catalog.set(PDFName.of('Outlines'), context.obj({ First: a, Last: b } as never));
    const names = context.nextRef();
    context.assign(names, context.obj({ Kids: [names, names], Names: [title] } as never));
    catalog.set(PDFName.of('Names'), context.obj({ Dests: names } as never));
    const labels = context.nextRef();
    context.assign(labels, context.obj({ Kids: [labels], Nums: [0] } as never));
    catalog.set(PDFName.of('PageLabels'), labels);
    const bytes = await doc.save();
    for (const numbers of [
      [1, 2, 3, 4, 5],
      [2, 1],
    ])
      expect((await seen(await made(boardOf(numbers, true), { [HASH]: bytes }))).links.length).toBe(
        numbers.length,
      );
  });
});
