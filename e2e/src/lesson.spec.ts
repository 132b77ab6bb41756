import { expect, test } from './story.js';
import { execFileSync } from 'node:child_process';

import { Line, KillableServer } from './house.js';
import { samplePdf } from './pdfs.js';
import { Someone } from './people.js';

/* The whole path, as a tutor and a student walk it; its steps are those of the first issue. */

const across = (y: number, from = 100, to = 400) =>
  Array.from({ length: 7 }, (_, i) => ({ x: from + ((to - from) * i) / 6, y }));

test('a PDF becomes a board, two write on it live, the lesson becomes a record', async ({
  browser,
}) => {
  const server = await KillableServer.start();
  const line = await Line.to(server.port);
  const maren = await Someone.at(browser);
  const ida = await Someone.at(browser);
  let join_ = '';
  let pages: string[] = [];

  await test.step('1 and 2: first visit, sign out, wrong password, sign in', async () => {
    await maren.firstVisit(server.url);
    await maren.button('Maren Solheim').click();
    await maren.button('Sign out').click();
    await maren.page.getByLabel('E-mail').fill('maren@solheim.example');
    await maren.page.getByLabel('Password').fill('high-water-at-ten');
    await maren.button('Sign in').click();
    await expect(maren.page.getByRole('alert')).toContainText('don’t belong together');
    await maren.page.getByLabel('Password').fill('low-water-at-ten');
    await maren.button('Sign in').click();
    await expect(maren.page.getByText('No course yet')).toBeVisible();
  });

  await test.step('3: course, PDF, board, zoom, page strip, empty page', async () => {
    await maren.makeCourseByForm('Sky-watching');
    await maren.bring('Star chart.pdf', await samplePdf(6));
    await expect.poll(async () => (await maren.pageIds()).length).toBe(6);
    pages = await maren.pageIds();
    await maren.isSharp();
    const before = await maren.locate(pages[0]!, { x: 100, y: 100 });
    await maren.stage.hover();
    await maren.page.keyboard.down('Control');
    await maren.page.mouse.wheel(0, -200);
    await maren.page.keyboard.up('Control');
    await expect.poll(() => maren.locate(pages[0]!, { x: 100, y: 100 })).not.toEqual(before);
    await maren.button('Whole page').click();
    await maren.button('As wide as the window').click();
    await maren.button('Page 4').click();
    await expect(maren.page.getByLabel('Go to page number')).toHaveValue('4');
    await maren.button('Empty page').click();
    await expect.poll(async () => (await maren.pageIds()).length).toBe(7);
    await expect(maren.page.getByLabel('Go to page number')).toHaveValue('5');
    await maren.stage.focus();
    await maren.page.keyboard.press('Home');
    await expect(maren.page.getByLabel('Go to page number')).toHaveValue('1');
    pages = await maren.pageIds();
  });

  await test.step('4: the lesson opens, a student comes in by link, on the same page', async () => {
    join_ = await maren.openLesson();
    await ida.page.goto(line.url + join_);
    await expect(ida.page.getByText('with Maren Solheim')).toBeVisible();
    await ida.join(line.url + join_, 'Ida');
    await ida.isTold('Watching');
    await expect(maren.penOf('Ida')).toBeVisible();
    expect(await ida.pageIds()).toEqual(pages);
  });

  await test.step('5: without a pen nothing is written; with it both see it being drawn', async () => {
    await ida.draw(pages[0]!, across(200));
    await maren.give('Ida', 'Writing');
    await ida.isTold('You have a pen');
    expect(await ida.lines()).toEqual([]);
    await ida.penDown(pages[0]!, across(220));
    await maren.seesInkAt(pages[0]!, { x: 250, y: 220 });
    expect(await maren.lines()).toEqual([]);
    await ida.penUp();
    await expect.poll(() => maren.lines().then((list) => list.length)).toBe(1);
    await maren.seesInkAt(pages[0]!, { x: 250, y: 220 });
  });

  await test.step('5: taking the pen back stops a stroke under way', async () => {
    await ida.penDown(pages[0]!, across(260));
    await maren.seesInkAt(pages[0]!, { x: 250, y: 260 });
    await maren.button('Take all pens back').click();
    await ida.isTold('Watching');
    await ida.seesPaperAt(pages[0]!, { x: 250, y: 260 });
    await maren.seesPaperAt(pages[0]!, { x: 250, y: 260 });
    await ida.penUp();
    expect((await ida.lines()).length).toBe(1);
    await maren.button('Writing for all').click();
    await ida.isTold('You have a pen');
  });

  await test.step('5: undo and redo touch only one’s own; the eraser too', async () => {
    await maren.draw(pages[0]!, across(300));
    await expect.poll(() => ida.lines().then((list) => list.length)).toBe(2);
    await ida.button('Undo').click();
    await ida.seesPaperAt(pages[0]!, { x: 250, y: 220 });
    await maren.seesPaperAt(pages[0]!, { x: 250, y: 220 });
    await maren.seesInkAt(pages[0]!, { x: 250, y: 300 });
    await expect(ida.button('Undo')).toBeDisabled();
    await ida.button('Redo').click();
    await maren.seesInkAt(pages[0]!, { x: 250, y: 220 });
    await ida.button('Eraser').click();
    await ida.draw(pages[0]!, [
      { x: 300, y: 190 },
      { x: 300, y: 330 },
    ]);
    await maren.seesPaperAt(pages[0]!, { x: 250, y: 220 });
    await maren.seesInkAt(pages[0]!, { x: 250, y: 300 });
    await ida.button('Undo').click();
    await maren.seesInkAt(pages[0]!, { x: 250, y: 220 });
    await ida.button('Highlighter').click();
    await ida.draw(pages[0]!, across(100));
    await expect.poll(() => maren.lines().then((list) => list.length)).toBe(3);
  });

  await test.step('6: the line is away while both write on; then all agree', async () => {
    await ida.page.getByRole('button', { name: 'Pen', exact: true }).click();
    line.cut();
    await expect(ida.page.getByText('Connection lost for a moment')).toBeVisible();
    await expect(maren.page.getByText('away')).toBeVisible();
    for (const y of [120, 130, 140]) await ida.draw(pages[0]!, across(y));
    await maren.draw(pages[0]!, across(150));
    expect((await ida.lines()).length).toBe(6);
    line.mend();
    await expect(ida.page.getByText('Connection lost')).toBeHidden();
    await expect.poll(() => maren.lines().then((list) => list.length)).toBe(7);
    await expect.poll(async () => (await ida.lines()).join()).toBe((await maren.lines()).join());
  });

  await test.step('6: a reload in the middle of a break loses nothing', async () => {
    line.cut();
    await expect(ida.page.getByText('Connection lost for a moment')).toBeVisible();
    await ida.draw(pages[0]!, across(160));
    line.mend();
    await ida.page.reload();
    await ida.isOnBoard();
    await expect.poll(() => maren.lines().then((list) => list.length)).toBe(8);
    await expect.poll(async () => (await ida.lines()).join()).toBe((await maren.lines()).join());
  });

  await test.step('6: the server is killed while both write, and started again', async () => {
    await ida.draw(pages[0]!, across(170));
    await maren.draw(pages[0]!, across(180));
    await server.kill('SIGKILL');
    await expect(maren.page.getByText('Connection lost for a moment')).toBeVisible();
    await ida.draw(pages[0]!, across(190));
    await maren.draw(pages[0]!, across(330));
    await server.run();
    await expect(maren.page.getByText('Connection lost')).toBeHidden();
    await expect(ida.page.getByText('Connection lost')).toBeHidden();
    await expect.poll(() => maren.lines().then((list) => list.length)).toBe(12);
    await expect.poll(() => ida.lines().then((list) => list.length)).toBe(12);
    await ida.isTold('You have a pen');
  });

  let records = '';
  await test.step('7: closing ends it for the student, and leaves a record', async () => {
    await maren.button('Close the lesson').click();
    await maren.page.getByRole('dialog').getByRole('button', { name: 'Close the lesson' }).click();
    await expect(maren.page.getByText('Who was there')).toBeVisible();
    records = maren.page.url();
    await expect(ida.page.getByText('The lesson is over')).toBeVisible();
    const late = await Someone.at(browser);
    await late.page.goto(line.url + join_);
    await expect(late.page.getByText('The lesson isn’t open yet')).toBeVisible();
    await late.leave();
    await expect(maren.page.getByRole('row', { name: /Ida/ })).toBeVisible();
    await expect.poll(() => maren.lines().then((list) => list.length)).toBe(12);
  });

  await test.step('7: the record as one PDF that other tools read', async () => {
    const { path, name } = await maren.saveRecord();
    expect(name).toContain('Sky-watching');
    execFileSync('qpdf', ['--check', path]);
    expect(execFileSync('pdftotext', [path, '-']).toString()).toContain('Sheet 3 of 6');
    expect(execFileSync('pdfinfo', [path]).toString()).toMatch(/Pages:\s+7/);
  });

  await test.step('a clean stop, and everything is there after it', async () => {
    expect(await server.kill('SIGTERM')).toBe(0);
    await server.run();
    await maren.page.goto(records);
    await expect.poll(() => maren.lines().then((list) => list.length)).toBe(12);
  });

  for (const someone of [maren, ida]) await someone.leave();
  line.close();
  await server.close();
});
