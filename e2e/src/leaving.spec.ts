import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import type { Download, Page } from '@playwright/test';
import { expectNoAxeViolations } from './axe.js';
import { SharedProcessServer } from './house.js';
import { samplePdf } from './pdfs.js';
import { hasCome, Someone } from './people.js';
import { expect, test } from './story.js';

let server: SharedProcessServer;

test.beforeEach(async () => {
  server = await SharedProcessServer.start();
});
test.afterEach(() => server.close());

/** What is saved by a press of a button. */
async function saved(page: Page, press: () => Promise<void>): Promise<Download> {
  const [download] = await Promise.all([page.waitForEvent('download'), press()]);
  return download;
}

test('a record is saved in every form, and shown to a parent by a link until it is withdrawn', async ({
  browser,
}) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Reading the tides');
  await maren.bring('Tides.pdf', await samplePdf(2));
  const [page] = await maren.pageIds();
  const link = server.url + (await maren.openLesson());
  const ida = await Someone.at(browser);
  await ida.join(link, 'Ida');
  await maren.give('Ida', 'Writing');
  await ida.isTold('You have a pen');
  const hers = [
    { x: 100, y: 120 },
    { x: 260, y: 120 },
  ];
  await ida.draw(page!, hers);
  await maren.draw(page!, [
    { x: 100, y: 180 },
    { x: 260, y: 180 },
  ]);
  await expect.poll(() => ida.lines().then((lines) => lines.length)).toBe(2);
  await maren.page.getByRole('button', { name: /Chat/ }).click();
  await maren.page.getByRole('textbox', { name: 'Message' }).fill('Low water is at ten.');
  await maren.page.keyboard.press('Enter');
  await expect(
    maren.page.locator('cua-chat-panel').getByText('Low water is at ten.'),
  ).toBeVisible();
  await maren.button('Close the lesson').click();
  const closing = maren.page.getByRole('dialog');
  await hasCome(closing);
  await closing.getByRole('textbox', { name: 'Summary' }).fill('Flo og fjære at Solvik.');
  await closing.getByRole('button', { name: 'Close the lesson' }).click();
  await maren.page.waitForURL(/records/);
  const record = maren.page.url();

  const dialog = maren.page.getByRole('dialog', { name: 'Save from this record' });
  const save = async (form: string, ...wishes: string[]): Promise<Download> => {
    await maren.button('Save…').click();
    await dialog.getByText(form, { exact: true }).click();
    for (const wish of wishes) await dialog.getByLabel(wish).click();
    return saved(maren.page, () => dialog.getByRole('button', { name: 'Save' }).click());
  };

  const pdf =
    await test.step('as PDF with annotations, by author, with the notes (qpdf, poppler)', async () => {
      const download = await save('PDF', 'As annotations');
      const path = await download.path();
      execFileSync('qpdf', ['--check', path]);
      const open = execFileSync('qpdf', ['--qdf', '--object-streams=disable', path, '-']);
      expect(open.toString('latin1').match(/\/Subtype \/Ink/g)?.length).toBe(2);
      expect(open.toString('latin1')).toContain('/T (Ida)');
      expect(execFileSync('pdftotext', [path, '-']).toString()).toContain(
        'Flo og fjære at Solvik.',
      );
      return path;
    });

  await test.step('a page as PNG and as SVG, which other tools draw', async () => {
    const png = readFileSync(await (await save('This page as PNG')).path());
    expect(png.subarray(1, 4).toString()).toBe('PNG');
    const svg = await (await save('This page as SVG')).path();
    const drawn = execFileSync('rsvg-convert', ['--format=png', '--width=200', svg]);
    expect(drawn.subarray(1, 4).toString()).toBe('PNG');
  });

  const inkml = await test.step('the ink of a page as InkML', async () => {
    const path = await (await save('Its ink as InkML')).path();
    expect(readFileSync(path, 'utf8')).toContain('<annotation type="author">Ida</annotation>');
    return path;
  });

  await test.step('the chat as text', async () => {
    const text = readFileSync(await (await save('Chat as text')).path(), 'utf8');
    expect(text).toContain('Reading the tides: Tides');
    expect(text).toContain('Low water is at ten.');
  });

  const boardFile = await test.step('all of it as a board file, with names', async () =>
    readFileSync(await (await save('Board file', 'With the names')).path()));

  await test.step('the lesson as a film, which can be stopped while it is made (ffprobe, ffmpeg)', async () => {
    await maren.button('Save…').click();
    await dialog.getByText('Film as WebM', { exact: true }).click();
    await dialog.getByRole('combobox', { name: 'How fast' }).click();
    await maren.page.getByRole('option', { name: 'as it was' }).click();
    await expect(dialog.getByText('It will be')).toBeVisible();
    await dialog.getByRole('button', { name: 'Save' }).click();
    await dialog.getByRole('button', { name: 'Stop' }).click();
    await expect(dialog.getByRole('button', { name: 'Save' })).toBeVisible();
    const film = await saved(maren.page, () =>
      dialog.getByRole('button', { name: 'Save' }).click(),
    );
    const path = await film.path();
    const probed = execFileSync('ffprobe', [
      ...[
        '-v',
        'error',
        '-show_entries',
        'format=format_name,duration:stream=codec_type,width,height',
      ],
      ...['-of', 'json', path],
    ]);
    const { format, streams } = JSON.parse(probed.toString()) as {
      format: { format_name: string; duration: string };
      streams: { codec_type: string; width: number; height: number }[];
    };
    expect(format.format_name).toContain('webm');
    expect(Number(format.duration)).toBeGreaterThan(2);
    expect(streams.length).toBe(1);
    const { codec_type, width, height } = streams[0]!;
    expect(codec_type).toBe('video');
    // Every frame can be decoded; in the last one there are both lines, on the printed page.
    const last = execFileSync(
      'ffmpeg',
      [
        ...['-v', 'error', '-i', path, '-update', '1', '-f', 'image2pipe', '-c:v', 'rawvideo'],
        ...['-vf', "select='eq(pict_type,I)+eq(pict_type,P)',reverse", '-frames:v', '1'],
        ...['-pix_fmt', 'gray', '-'],
      ],
      { maxBuffer: 1e9 },
    );
    expect(last.length).toBe(width * height);
    const scale = (height - 40) / 842;
    const at = (x: number, y: number): number =>
      last[Math.round(y * scale) * width + Math.round(x * scale)]!;
    expect(at(180, 120)).toBeLessThan(120);
    expect(at(180, 180)).toBeLessThan(120);
    expect(at(180, 150)).toBeGreaterThan(230);
  });

  const parent =
    await test.step('a parent’s phone opens the link, and sees what was done', async () => {
      await maren.button('Share…').click();
      const links = maren.page.getByRole('dialog', { name: /^Share / });
      await hasCome(links);
      await links.getByLabel('For whom').fill('Ida’s father');
      await links.getByLabel('Send it to').fill('father@example.org');
      await links.getByText('look, and save as PDF').click();
      await links.getByRole('button', { name: 'Make the link and send it' }).click();
      const address = await links.getByLabel('Address').inputValue();
      const phone = await Someone.at(browser, { viewport: { width: 390, height: 844 } });
      await phone.page.goto(address);
      await expect(phone.page.getByText('Flo og fjære at Solvik.')).toBeVisible();
      const first = phone.page.getByRole('img', { name: /^Page 1/ });
      await expect
        .poll(() => first.evaluate((image: HTMLImageElement) => image.naturalWidth))
        .toBeGreaterThan(800);
      const download = await saved(phone.page, () => phone.button('Save as PDF').click());
      execFileSync('qpdf', ['--check', await download.path()]);
      await expect(phone.page.getByText('and one other student')).toBeVisible();
      return phone;
    });

  await test.step('every opening is listed; withdrawn, the link opens nothing, and its pages go from the screen', async () => {
    await maren.page.reload();
    await maren.button('Share…').click();
    await maren.page.getByText('Opened once', { exact: false }).click();
    await expect(maren.page.getByText('saved a PDF', { exact: false })).toBeVisible();
    await maren.button('Withdraw…').click();
    await maren.page.getByRole('button', { name: 'Withdraw', exact: true }).click();
    await expect(maren.page.getByText('1 no longer open')).toBeVisible();
    await expect(parent.page.getByRole('alert')).toContainText('This link was withdrawn.');
    await expect(parent.page.getByRole('img')).toHaveCount(0);
    await parent.page.reload();
    await expect(parent.page.getByRole('alert')).toContainText('This link was withdrawn.');
    await maren.page.goto(`${server.url}/mailbox`);
    await expect(maren.page.getByText('Hello Ida’s father,')).toBeVisible();
  });

  await test.step('the PDF comes back: what was annotations is ink again', async () => {
    await maren.page.goto(record);
    await maren.page.getByRole('link', { name: /Reading the tides/ }).click();
    // All of the course goes along as one archive, too.
    const archive = await saved(maren.page, () =>
      maren.button('Save everything of this course (zip)').click(),
    );
    const names = execFileSync('unzip', ['-Z1', await archive.path()]).toString();
    expect(names).toMatch(/Records\/.*\/record\.pdf/);
    expect(names).toContain('Hours.csv');
    await maren.bring('From last week.pdf', readFileSync(pdf));
    await expect(
      maren.page.getByText('2 annotations of this PDF can be changed like your own ink'),
    ).toBeVisible();
    const [again] = await maren.pageIds();
    expect((await maren.lines()).length).toBe(2);
    await maren.seesInkAt(again!, { x: 180, y: 120 });
    // And so does the InkML, on a page where nothing was written.
    const [, second] = await maren.pageIds();
    await maren.goTo(second!);
    await maren.page.locator('cua-tool-dock input[type=file]').setInputFiles({
      ...{ name: 'page.inkml', mimeType: 'application/inkml+xml' },
      buffer: readFileSync(inkml),
    });
    await expect.poll(() => maren.lines().then((lines) => lines.length)).toBe(4);
    await maren.seesInkAt(second!, { x: 180, y: 120 });
  });

  await test.step('the board file opens as a board, and says whose ink is whose', async () => {
    await maren.page.goto(record);
    await maren.page.getByRole('link', { name: /Reading the tides/ }).click();
    await maren.bring('Kept.cuaderno.zip', boardFile);
    await maren.isOnBoard();
    expect((await maren.lines()).length).toBe(2);
    await maren.button('Who wrote what').click();
    await maren.page.getByText('Ida alone').click();
    const [kept] = await maren.pageIds();
    await maren.seesInkAt(kept!, { x: 180, y: 120 });
    await maren.seesPaperAt(kept!, { x: 180, y: 180 });
  });

  await test.step('Ida’s data is deleted: her line is gone from the record, Maren’s stays, and a report says so', async () => {
    // Another window has the board open meanwhile.
    const beside = await Someone.beside(maren);
    await maren.page.goto(record);
    await maren.page.getByRole('link', { name: /Reading the tides/ }).click();
    await maren.page
      .locator('a[href^="/boards/"]')
      .filter({ hasText: /^Tides/ })
      .last()
      .click();
    await maren.isOnBoard();
    await expect.poll(() => maren.lines().then((lines) => lines.length)).toBe(2);
    await beside.page.goto(`${server.url}/records?student=Ida`);
    await beside.button('Delete what there is of Ida…').click();
    const dialog = beside.page.getByRole('dialog');
    await expect(dialog.getByText('1 lesson · 2 lines and texts')).toBeVisible();
    await expectNoAxeViolations(beside, 'deleting a student’s data');
    await dialog.getByLabel('I know that').check();
    await dialog.getByRole('button', { name: 'Delete for good' }).click();
    await expect(dialog.getByText('Their name is now “Former student 1”')).toBeVisible();
    const report = await saved(beside.page, () =>
      dialog.getByRole('button', { name: 'Save this report as text' }).click(),
    );
    const text = readFileSync(await report.path(), 'utf8');
    // On the board of the lesson, and on those that the board file and the PDF became: both know whose each line is.
    expect(text).toContain('removed from 3 boards');
    expect(text).toContain('3 entries of the log are empty now');
    expect(text).not.toContain('Ida');
    // The window that was open shows it by itself.
    await expect.poll(() => maren.lines().then((lines) => lines.length)).toBe(1);
    await beside.page.goto(record);
    await beside.seesInkAt(page!, { x: 180, y: 180 });
    await beside.seesPaperAt(page!, { x: 180, y: 120 });
    await beside.page.reload();
    // (The figures' folded tables have the name too.)
    await expect(
      beside.page.getByText('Former student 1').filter({ visible: true }).first(),
    ).toBeVisible();
    await expect(beside.page.getByText('Ida', { exact: true })).toHaveCount(0);
  });
});

test('lessons are planned, moved and cancelled; hours are counted and corrected', async ({
  browser,
}) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Cello with Mika');
  await maren.page.goto(`${server.url}/week`);
  await maren.button('The week after').click();
  await maren.button('Plan lessons').click();
  const plan = maren.page.getByRole('dialog', { name: 'Plan lessons' });
  await hasCome(plan);
  await plan.getByRole('combobox', { name: 'Time' }).fill('15:15');
  await plan.getByRole('button', { name: 'Plan it' }).click();
  const lesson = maren.page.getByRole('button', { name: /15:15–16:05/ });
  await expect(lesson).toContainText('Cello with Mika');

  // Carried two hours down, it is asked what is meant; left, it is where it was.
  const carry = async (): Promise<void> => {
    const { x, y, width } = (await lesson.boundingBox())!;
    const hour =
      (await maren.page.locator('.fc-timegrid-slot-lane').first().boundingBox())!.height * 2;
    await maren.page.mouse.move(x + width / 2, y + 6);
    await maren.page.mouse.down();
    await maren.page.mouse.move(x + width / 2, y + 6 + hour, { steps: 6 });
    await maren.page.mouse.move(x + width / 2, y + 6 + 2 * hour, { steps: 6 });
    await maren.page.mouse.up();
  };
  const asks = maren.page.getByRole('dialog', { name: 'Move this lesson' });
  await carry();
  await expect(asks).toContainText('17:15–18:05');
  await asks.getByRole('button', { name: 'Leave it' }).click();
  await expect(lesson).toBeVisible();
  await carry();
  await asks.getByRole('button', { name: 'This date and all after it' }).click();
  const later = maren.page.getByRole('button', { name: /17:15–18:05/ });
  await expect(later).toBeVisible();

  await later.click();
  const date = maren.page.getByRole('dialog', { name: 'Cello with Mika' });
  await hasCome(date);
  await date.getByRole('combobox', { name: 'Time' }).fill('17:00');
  await date.getByLabel('Why').fill('Mika plays at school');
  await date.getByRole('button', { name: 'Move it' }).click();
  const moved = maren.page.getByRole('button', { name: /17:00–17:50/ });
  await expect(moved).toContainText('moved: Mika plays at school');
  await moved.click();
  await date.getByRole('button', { name: 'Cancel this date' }).click();
  await expect(moved.or(later)).toContainText('cancelled');
  await maren.button('The week after').click();
  await expect(later).toBeVisible();

  const calendar = await saved(maren.page, () => maren.button('Save as a calendar (.ics)').click());
  const path = await calendar.path();
  const text = readFileSync(path, 'utf8');
  expect(text).toContain('RRULE:FREQ=WEEKLY');
  expect(text).toContain('EXDATE');
  await maren.button('Import a calendar…').click();
  await maren.page
    .getByLabel('Calendar file')
    .setInputFiles({ name: 'mine.ics', mimeType: 'text/calendar', buffer: readFileSync(path) });
  await expect(maren.page.getByRole('dialog').getByRole('status')).toHaveText(
    'One event of “mine.ics” is in the timetable now.',
  );
  await maren.button('Done').click();
  // Brought twice, it is planned twice: that is told.
  await expect(
    maren.page.getByRole('button', { name: /At the same time as Cello with Mika/ }).first(),
  ).toBeVisible();

  await maren.page.goto(server.url);
  await maren.page
    .getByRole('link', { name: /Cello with Mika/ })
    .first()
    .click();
  await maren.bring('Sheet.pdf', await samplePdf(1));
  await maren.openLesson();
  await maren.button('Close the lesson').click();
  await maren.page.getByRole('dialog').getByRole('button', { name: 'Close the lesson' }).click();
  await maren.page.waitForURL(/records/);
  await maren.page.goto(`${server.url}/hours`);
  await maren.button('Correct…').click();
  await maren.page.getByLabel('Minutes').fill('50');
  await maren.page.getByLabel('Why').fill('The clock was not started');
  await maren.button('Correct').click();
  await expect(
    maren.page.getByText('corrected to 50 min: The clock was not started'),
  ).toBeVisible();
  await expect(maren.page.getByRole('heading', { name: '50 min in one lesson' })).toBeVisible();
  const held = await saved(maren.page, () => maren.button('Save as a calendar (.ics)').click());
  expect(readFileSync(await held.path(), 'utf8')).toContain('BEGIN:VEVENT');
  const table = await saved(maren.page, () => maren.button('Save as a table (CSV)').click());
  expect(readFileSync(await table.path(), 'utf8')).toContain(',50,50: The clock was not started');
});
