import { expectNoAxeViolations } from './axe.js';
import { expect, test } from './story.js';
import { SharedProcessServer } from './house.js';
import { samplePdf } from './pdfs.js';
import { hasCome, Someone } from './people.js';

/*
 * Every screen against WCAG 2.2, levels A and AA, as far as axe-core (Deque) can tell; in the light and in
 * the dark, and for students on a phone.
 */

let server: SharedProcessServer;
test.beforeEach(async () => {
  server = await SharedProcessServer.start();
});
test.afterEach(() => server.close());

test('a tutor’s screens can be used by everyone', async ({ browser }) => {
  const maren = await Someone.at(browser);
  await maren.page.goto(server.url);
  await expect(maren.page.getByLabel('Your name')).toBeVisible();
  await expectNoAxeViolations(maren, 'set-up');
  await maren.setUp(server.url);
  await expectNoAxeViolations(maren, 'today');
  await maren.makeCourse('Tuesday sky-watching');
  await expectNoAxeViolations(maren, 'course');
  await maren.bring('Sky.pdf', await samplePdf(3));
  await expectNoAxeViolations(maren, 'board');
  const link = server.url + (await maren.openLesson());
  const ida = await Someone.at(browser);
  await ida.join(link, 'Ida');
  await ida.button('Raise hand').click();
  await maren.give('Ida', 'Writing');
  await expectNoAxeViolations(maren, 'lesson');
  await maren.page.getByRole('button', { name: 'Chat' }).click();
  await expectNoAxeViolations(maren, 'chat');
  await maren.page.getByRole('button', { name: 'People' }).click();
  await maren.button('Permissions…').click();
  await expectNoAxeViolations(maren, 'what students may do');
  // It covers neither the page nor the one button that can't wait.
  await maren.button('Take all pens back').click();
  await ida.isTold('Watching');
  await maren.page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
  await maren.button('Cover').click();
  await maren.button('Two, side by side').click();
  await maren.button('Cover').click();
  await expectNoAxeViolations(maren, 'cover sheets');
  await maren.page.keyboard.press('Escape');
  await maren.button('Eraser').click();
  await maren.button('Wipe …').click();
  await expectNoAxeViolations(maren, 'wipe');
  await maren.page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
  await maren.button('Close the lesson').click();
  await expectNoAxeViolations(maren, 'closing');
  await maren.page.getByRole('dialog').getByRole('button', { name: 'Close the lesson' }).click();
  await maren.page.waitForURL(/records/);
  await expectNoAxeViolations(maren, 'record');
  await maren.page.getByText('Statistics', { exact: true }).click();
  await expect(maren.page.getByRole('heading', { name: 'What each did' })).toBeVisible();
  await expectNoAxeViolations(maren, 'figures');
  await maren.button('Save…').click();
  await expectNoAxeViolations(maren, 'saving from a record');
  await maren.page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
  await maren.button('Share…').click();
  const links = maren.page.getByRole('dialog', { name: /^Share / });
  await hasCome(links);
  await links.getByLabel('For whom').fill('Ida’s father');
  await links.getByLabel('Send it to').fill('father@example.org');
  await links.getByRole('button', { name: 'Make the link and send it' }).click();
  const address = await links.getByLabel('Address').inputValue();
  await expectNoAxeViolations(maren, 'links');
  const father = await Someone.at(browser, { viewport: { width: 390, height: 844 } });
  await father.page.goto(address);
  await expect(father.page.getByRole('img').first()).toBeVisible();
  await expectNoAxeViolations(father, 'a shared record on a phone');
  await maren.page.goto(`${server.url}/mailbox`);
  await expect(maren.page.getByText('Hello Ida’s father,')).toBeVisible();
  await expectNoAxeViolations(maren, 'mailbox');
  await maren.page.goto(`${server.url}/hours`);
  await expect(maren.page.getByRole('heading', { name: /in one lesson/ })).toBeVisible();
  await expectNoAxeViolations(maren, 'hours');
  await maren.page.goto(`${server.url}/week`);
  await maren.button('Plan lessons').click();
  await expectNoAxeViolations(maren, 'planning');
  await maren.page.getByRole('dialog').getByRole('button', { name: 'Plan it' }).click();
  await maren.page.getByRole('button', { name: /16:30–17:20/ }).click();
  await expectNoAxeViolations(maren, 'one date');
  await maren.page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
  await expectNoAxeViolations(maren, 'week');
  await maren.page.goto(`${server.url}/records`);
  await expect(maren.page.getByText('1 record', { exact: true })).toBeVisible();
  await expectNoAxeViolations(maren, 'records');
  await maren.page.goto(`${server.url}/materials`);
  await expect(maren.page.getByRole('heading', { name: 'Materials' }).first()).toBeVisible();
  await expectNoAxeViolations(maren, 'materials');
});

test('a student’s screens can be used by everyone, on a phone too', async ({ browser }) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Tides', 'ask');
  await maren.bring('Tides.pdf', await samplePdf(2));
  const link = server.url + (await maren.openLesson());
  const noor = await Someone.at(browser, {
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
  });
  await noor.page.goto(link);
  await expect(noor.page.getByLabel('Your first name')).toBeVisible();
  await expectNoAxeViolations(noor, 'join');
  await noor.knock(link, 'Noor');
  await expect(noor.page.getByText(/door|let you in/i).first()).toBeVisible();
  await expectNoAxeViolations(noor, 'door');
  await maren.button('Let Noor in').click();
  await noor.isOnBoard();
  await expectNoAxeViolations(noor, 'looking on');
  await maren.give('Noor', 'Hands on');
  await noor.isTold('Hands on');
  await expectNoAxeViolations(noor, 'hands on');
  await noor.button('Class').click();
  await expectNoAxeViolations(noor, 'class');
  await noor.page.getByRole('button', { name: 'Close' }).click();
  await noor.button('Signal').click();
  await expectNoAxeViolations(noor, 'signals');
});

test('a tutor runs the lesson by keyboard alone', async ({ browser }) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Tides');
  await maren.bring('Tides.pdf', await samplePdf(1));
  const link = server.url + (await maren.openLesson());
  const ida = await Someone.at(browser);
  await ida.join(link, 'Ida');
  const { keyboard } = maren.page;
  await maren.penOf('Ida').getByRole('radio', { name: 'Watching' }).focus();
  await keyboard.press('ArrowRight');
  await ida.isTold('You have a pen');
  await keyboard.press('ArrowRight');
  await ida.isTold('Hands on');
  await maren.stage.focus();
  await keyboard.press('Shift+P');
  await ida.isTold('Watching');
  await maren.page.getByRole('switch', { name: 'In step' }).focus();
  await keyboard.press('Space');
  await expect(ida.page.getByText('In step with your tutor')).toBeVisible();
  await maren.button('More for Ida').focus();
  await keyboard.press('Enter');
  await expect(maren.page.getByRole('menuitem', { name: 'Hand over the lead' })).toBeVisible();
  await keyboard.press('Escape');
  await keyboard.press('2');
  await expect(maren.button('Mine 2: poppy, 21 points wide')).toHaveAttribute(
    'aria-pressed',
    'true',
  );
});
