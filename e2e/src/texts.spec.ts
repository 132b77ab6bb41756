import { expect, test } from './story.js';
import { execFileSync } from 'node:child_process';
import { SharedProcessServer } from './house.js';
import { Someone } from './people.js';

let server: SharedProcessServer;
test.beforeEach(async () => {
  server = await SharedProcessServer.start();
});
test.afterEach(() => server.close());

interface Text {
  readonly kind: string;
  readonly size: number;
  readonly colour: string;
  readonly frame: { readonly x: number; readonly y: number; readonly width: number };
  readonly lines: readonly { readonly runs: readonly { readonly text: string }[] }[];
  readonly removed: object | null;
}

/** Texts on the board as this person has it, line by line. */
function texts(who: Someone): Promise<Text[]> {
  return who.stage.evaluate((element) => {
    const { cuaStage } = element as unknown as {
      cuaStage: { board(): { pages: Map<string, { items: Map<string, Text> }> } };
    };
    return [...cuaStage.board().pages.values()].flatMap((page) =>
      [...page.items.values()].filter(({ kind, removed }) => kind === 'text' && !removed),
    );
  });
}
const words = async (who: Someone): Promise<string[][]> =>
  (await texts(who)).map(({ lines }) =>
    lines.map(({ runs }) => runs.map(({ text }) => text).join('')),
  );

test('texts and slips are written on the page, read by all, and found in the record', async ({
  browser,
}) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Tides');
  await maren.button('Empty board').click();
  await maren.isOnBoard();
  const noor = await Someone.at(browser);
  const link = await maren.openLesson();
  await noor.join(server.url + link, 'Noor');
  const [page] = (await maren.pageIds()) as [string];
  const pressed = async (name: string): Promise<void> => {
    const button = maren.page.getByRole('button', { name, exact: true });
    await button.click();
    await expect(button).toHaveAttribute('aria-pressed', 'true');
  };
  const field = maren.page.getByRole('textbox', { name: 'Text on the page' });
  const touch = async (x: number, y: number): Promise<void> => {
    const at = await maren.locate(page, { x, y });
    await maren.page.mouse.click(at.x, at.y);
  };

  // Typed where it stands; everyone has it when the keys rest, broken into the same lines.
  await pressed('Text');
  await touch(60, 80);
  await expect(field).toBeFocused();
  await maren.page.keyboard.type('When is low water at Solvik tonight, and how low is it?');
  await expect.poll(() => words(noor)).toEqual(await words(maren));
  await expect.poll(async () => (await words(noor))[0]?.length).toBe(2);
  // How it looks is changed without leaving it, in the same moment for everyone.
  const size = maren.page.getByLabel('Size of letters');
  await size.selectOption('28');
  await expect(field).toBeFocused();
  await expect.poll(async () => (await texts(noor))[0]?.size).toBe(28);
  await maren.button('Poppy red').click();
  await expect(field).toBeFocused();
  await expect.poll(async () => (await texts(noor))[0]?.colour).toBe('#c22f2f');
  await size.selectOption('20');
  await expect(field).toBeFocused();
  await expect.poll(async () => (await texts(noor))[0]?.size).toBe(20);
  await maren.page.keyboard.press('Control+End');
  await maren.page.keyboard.press('Enter');
  await maren.button('Bold').click();
  await maren.page.keyboard.type('Look it up.');
  await maren.page.keyboard.press('Escape');
  await expect(field).toHaveCount(0);
  await expect.poll(async () => (await words(noor))[0]?.at(-1)).toBe('Look it up.');
  const [first] = await texts(maren);
  /** @param down from the top of the text to the middle of its first line, in points */
  const inLetters = async (who: Someone, down = 14): Promise<number> => {
    const row = [];
    for (let x = 62; x < 90; x += 2)
      row.push(Math.min(...(await who.colourAt(page, { x, y: first!.frame.y + down }))));
    return Math.min(...row);
  };
  for (const who of [maren, noor]) await expect.poll(() => inLetters(who)).toBeLessThan(170);

  // A slip with a list, in letters that a script without spaces and one from the right need.
  await pressed('Slip');
  await touch(350, 200);
  await expect(field).toBeFocused();
  await maren.button('List with dots').click();
  await maren.page.keyboard.insertText('גאות');
  await maren.page.keyboard.press('Enter');
  await maren.page.keyboard.insertText('潮汐');
  await maren.page.keyboard.press('Escape');
  await expect.poll(async () => (await words(noor))[1]).toEqual(['•גאות', '•潮汐']);
  await expect
    .poll(async () => {
      const [r, , b] = await noor.colourAt(page, { x: 470, y: 320 });
      return r - b;
    })
    .toBeGreaterThan(30);

  // Opened again with a double click, changed, and back by undo.
  await pressed('Select');
  const at = await maren.locate(page, { x: 100, y: first!.frame.y + 12 });
  await maren.page.mouse.dblclick(at.x, at.y);
  await expect(field).toBeFocused();
  await maren.page.keyboard.press('Control+Home');
  await maren.page.keyboard.type('Now: ');
  await maren.page.keyboard.press('Escape');
  await expect.poll(async () => (await words(noor))[0]?.[0]).toContain('Now: When');
  await maren.button('Undo').click();
  await expect.poll(async () => (await words(noor))[0]?.[0]).toContain('When');
  expect((await words(noor))[0]![0]).not.toContain('Now');

  // Larger letters break into more lines; a text without words is none.
  await touch(100, first!.frame.y + 12);
  await maren.page.getByLabel('Size of letters').selectOption('40');
  await expect.poll(async () => (await texts(noor))[0]!.size).toBe(40);
  expect((await words(noor))[0]!.length).toBeGreaterThan(4);
  await pressed('Text');
  await touch(400, 100);
  await expect(field).toBeFocused();
  await maren.page.keyboard.press('Escape');
  expect((await texts(maren)).length).toBe(2);

  // Another tool in hand finishes what was being written.
  await touch(400, 100);
  await expect(field).toBeFocused();
  await maren.page.keyboard.type('Goes on');
  await pressed('Pen');
  await expect(field).toHaveCount(0);
  await expect.poll(async () => (await words(noor)).at(-1)).toEqual(['Goes on']);
  // Who comes late has it all, drawn alike.
  const ben = await Someone.at(browser);
  await ben.join(server.url + link, 'Ben');
  expect(await words(ben)).toEqual(await words(maren));
  await expect.poll(() => inLetters(ben, 28)).toBeLessThan(170);

  await maren.page.reload();
  await maren.isOnBoard();
  expect((await words(maren))[1]).toEqual(['•גאות', '•潮汐']);
  await maren.button('Close the lesson').click();
  await maren.page.getByRole('dialog').getByRole('button', { name: 'Close the lesson' }).click();
  const { path } = await maren.saveRecord();
  execFileSync('qpdf', ['--check', path]);
  const said = execFileSync('pdftotext', [path, '-']).toString().replace(/\s+/g, ' ');
  expect(said).toContain('When is low water at Solvik tonight, and how low is it?');
  expect(execFileSync('pdffonts', [path]).toString()).toContain('AtkinsonHyperlegibleNext-Bold');
});
