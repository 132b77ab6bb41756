import { changePage, itemsOn, newId, operation, pagesInOrder } from '@cuaderno/core';
import type { Board, FileHash, Id } from '@cuaderno/core';
import { addInk } from '@cuaderno/core/testing';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { House } from '../testing/harness.js';
import type { Visitor } from '../testing/harness.js';
import { plainPdf } from '../testing/pdf-files.js';

const folder = mkdtempSync(join(tmpdir(), 'cuaderno-held-'));

describe('a file of which a page is hidden', () => {
  let house: House;
  let student: Visitor;
  let pages: Id[];

  beforeEach(async () => {
    house = await House.open('hidden-files');
    const bytes = await plainPdf(3);
    house.board = (await house.tutor.upload(house.course.id, 'Tides.pdf', bytes)).json<{
      id: string;
    }>().id;
    await house.app.imports.settled();
    await house.openLesson();
    student = await house.student('Ana');
    pages = pagesInOrder(await board()).map(({ id }) => id);
  });
  afterEach(() => house.close());

  const board = async (): Promise<Board> =>
    (await house.app.bus.host(house.board))!.between((state) => state);
  const fileOf = async (page: Id): Promise<{ file: FileHash; number: number }> => {
    const { paper } = (await board()).pages.get(page)!;
    if (paper.kind !== 'pdf') throw new Error('It has none.');
    return paper;
  };
  const hold = async (page: Id, hidden: boolean): Promise<void> => {
    const host = (await house.app.bus.host(house.board))!;
    const change = changePage(await board(), page, { hidden })!;
    await host.applyAs([operation(change)], { id: newId(), role: 'tutor', trust: 'hands' });
  };
  /** All words in a file that a student is sent, read as poppler and qpdf read it; `null` for none. */
  const words = async (file: FileHash): Promise<string | null> => {
    const { statusCode, rawPayload } = await student.get(`/files/${file}`);
    if (statusCode !== 200) return null;
    const path = join(folder, `${newId()}.pdf`);
    writeFileSync(path, rawPayload);
    execFileSync('qpdf', ['--check', path]);
    const plain = execFileSync('qpdf', ['--qdf', '--object-streams=disable', path, '-']);
    const text = execFileSync('pdftotext', [path, '-']).toString();
    // What stood in any stream, whether a page shows it or not.
    return (
      text +
      [...plain.toString('latin1').matchAll(/<([0-9A-F]+)> Tj/g)]
        .map(([, hex]) => Buffer.from(hex!, 'hex').toString('latin1'))
        .join()
    );
  };

  it('reaches no student while it is whole, and never with that page in it', async () => {
    const whole = (await fileOf(pages[0]!)).file;
    expect(await words(whole)).toContain('Page 2');
    await hold(pages[1]!, true);
    // From this moment on, and not when the rest is done.
    expect(await words(whole)).toBeNull();
    await house.app.hiddenFiles.settled();
    expect(await words(whole)).toBeNull();
    const shown = await fileOf(pages[0]!);
    expect(await fileOf(pages[2]!)).toEqual(
      jasmine.objectContaining({ file: shown.file, number: 3 }),
    );
    const rest = (await words(shown.file))!;
    expect(rest).toContain('Page 1');
    expect(rest).toContain('Page 3');
    expect(rest).not.toContain('Page 2');
    const own = await fileOf(pages[1]!);
    expect(await words(own.file)).toBeNull();
    for (const file of [whole, own.file])
      expect((await student.get(`/files/${file}/pages/1?side=720`)).statusCode).toBe(404);
    expect((await house.tutor.get(`/files/${own.file}`)).statusCode).toBe(200);

    await hold(pages[1]!, false);
    expect(await words(own.file)).toContain('Page 2');
    await house.app.hiddenFiles.settled();
    expect(await words(whole)).toBeNull();
  });

  it('keeps its pages’ ink and places, and is not brought once more at the next start', async () => {
    const host = (await house.app.bus.host(house.board))!;
    const line = addInk(pages[1]!);
    await host.applyAs([line], { id: newId(), role: 'tutor', trust: 'hands' });
    await hold(pages[1]!, true);
    await house.app.hiddenFiles.settled();
    await house.restart();
    await house.app.imports.settled();
    const after = pagesInOrder(await board());
    expect(after.map(({ id }) => id)).toEqual(pages);
    expect(itemsOn(after[1]!).map(({ id }) => id)).toEqual([line.id]);
  });

  it('is taken apart when it is asked for, if a stop of the server came before that', async () => {
    const whole = (await fileOf(pages[0]!)).file;
    house.app.bus.onHiddenChanged = () => undefined;
    await hold(pages[1]!, true);
    expect(await words(whole)).toBeNull();
    await house.app.hiddenFiles.settled();
    expect(await words((await fileOf(pages[0]!)).file)).not.toContain('Page 2');
  });

  it('reaches no student with a page that was taken out before the lesson; of one that is taken out in it, they have it', async () => {
    const whole = (await fileOf(pages[0]!)).file;
    const host = (await house.app.bus.host(house.board))!;
    const maren = { id: newId(), role: 'tutor', trust: 'hands' } as const;
    const remove = (page: Id) =>
      host.applyAs([operation({ kind: 'pages.remove', pages: [page] })], maren);
    // While the lesson is on, everyone has seen the page: nothing is taken apart under their eyes.
    await remove(pages[0]!);
    expect(await words(whole)).toContain('Page 1');
    const { id } = house.app.lessons.onBoard(house.board)!;
    await house.tutor.post(`/lessons/${id}/close`);
    await house.openLesson();
    student = await house.student('Ben');
    expect(await words(whole)).toBeNull();
    await house.app.hiddenFiles.settled();
    const rest = (await words((await fileOf(pages[1]!)).file))!;
    expect(rest).toContain('Page 2');
    expect(rest).not.toContain('Page 1');
    expect(await words(whole)).toBeNull();
    // It comes back with what it was printed with.
    await host.applyAs([operation({ kind: 'pages.restore', pages: [pages[0]!] })], maren);
    expect(await words((await fileOf(pages[0]!)).file)).toContain('Page 1');
  });

  it('may hide all its pages: then no student has it, and it stays whole', async () => {
    const whole = (await fileOf(pages[0]!)).file;
    const host = (await house.app.bus.host(house.board))!;
    const state = await board();
    const ops = pages.map((page) => operation(changePage(state, page, { hidden: true })!));
    await host.applyAs(ops, { id: newId(), role: 'tutor', trust: 'hands' });
    await house.app.hiddenFiles.settled();
    expect(await words(whole)).toBeNull();
    expect((await fileOf(pages[0]!)).file).toBe(whole);
  });
});
