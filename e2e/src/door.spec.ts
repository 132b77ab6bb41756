import { expect, test } from './story.js';
import { SharedProcessServer } from './house.js';
import { samplePdf } from './pdfs.js';
import { Someone } from './people.js';

let server: SharedProcessServer;
test.beforeEach(async () => {
  server = await SharedProcessServer.start();
});
test.afterEach(() => server.close());

test('new arrivals wait at the door until the tutor lets them in, and can be sent out', async ({
  browser,
}) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Tuesday sky-watching', 'ask');
  await maren.bring('Sky.pdf', await samplePdf(2));
  const token = await maren.page.evaluate(async () => {
    const id = location.pathname.split('/').pop()!;
    const { course } = (await (await fetch(`/api/boards/${id}`)).json()) as {
      course: { linkToken: string };
    };
    return course.linkToken;
  });
  const link = `${server.url}/join/${token}`;

  // At the wrong hour there is a friendly page; it goes on by itself when the lesson opens.
  const ida = await Someone.at(browser, { viewport: { width: 390, height: 844 }, hasTouch: true });
  await ida.page.goto(link);
  await expect(ida.page.getByText('The lesson isn’t open yet')).toBeVisible();
  await maren.openLesson();
  await ida.page.getByLabel('Your first name').fill('Ida');
  await ida.button('Go in').click();
  await expect(ida.page.getByText('You are at the door')).toBeVisible();

  // Three are at the door, two of one name; the tutor sees them also after a reload.
  const [jonas, other] = [await Someone.at(browser), await Someone.at(browser)];
  await jonas.knock(link, 'Jonas');
  await other.knock(link, 'Ida');
  await expect(maren.button('3 at the door')).toBeVisible();
  await maren.page.reload();
  await expect(maren.button('3 at the door')).toBeVisible();

  // Nobody outside has heard a word of the lesson; let in, they have all of it.
  const [first] = (await maren.pageIds()) as [string];
  await maren.draw(first, [
    { x: 80, y: 120 },
    { x: 300, y: 120 },
  ]);
  await maren.button('Let Ida in').click();
  await ida.isOnBoard();
  await expect.poll(() => ida.lines()).toEqual(await maren.lines());
  await maren.button('Tell Ida (2) “not now”').click();
  await expect(other.page.getByText('Not just now')).toBeVisible();
  await other.button('Knock once more').click();
  await maren.button('Let all in').click();
  await Promise.all([jonas.isOnBoard(), other.isOnBoard()]);
  await expect(maren.button(/at the door/)).toHaveCount(0);

  // Anyone who reloads doesn't wait again; anyone who is sent out does.
  await ida.page.reload();
  await ida.isOnBoard();
  await maren.button('More for Jonas').click();
  await maren.page.getByText('Send out, may knock again').click();
  await expect(jonas.page.getByText('You are outside')).toBeVisible();
  await jonas.page.goto(`${server.url}/lesson`);
  await expect(jonas.page.getByText('You are outside')).toBeVisible();
  await jonas.button('Knock once more').click();
  await maren.button('Let Jonas in').click();
  await jonas.isOnBoard();
  await maren.button('More for Jonas').click();
  await maren.page.getByText('Send out for this lesson').click();
  await expect(jonas.page.getByText('You can come to the next one')).toBeVisible();
  await jonas.knock(link, 'Jo');
  await expect(jonas.page.getByText('Your tutor has sent you out of this lesson')).toBeVisible();

  // Stepping out leaves the lesson open, closing it ends it for all: three acts, three sentences.
  await maren.button('Close the lesson').click();
  await expect(
    maren.page.getByText('The lesson stays open and everyone stays in it'),
  ).toBeVisible();
  await maren.button('Step out').click();
  await expect(maren.page.getByText('Lesson open')).toBeVisible();
  await ida.isTold('Watching');
  await maren.page.getByText('The door, guests, and a new link').click();
  await expect(maren.button('Retire the course …')).toBeDisabled();
  await maren.page.locator('cua-board-list a.card').first().click();
  await maren.button('Close the lesson').click();
  await maren.page.getByRole('dialog').getByRole('button', { name: 'Close the lesson' }).click();
  await expect(ida.page.getByText('The lesson is over')).toBeVisible();
  await maren.page.waitForURL(/records/);
  await expect(
    maren.page.getByRole('complementary').getByText('Jonas', { exact: true }),
  ).toBeVisible();

  // Retired, its link is dead for good.
  await maren.page.goto(server.url);
  await maren.page
    .getByRole('region', { name: 'Courses', exact: true })
    .getByRole('link', { name: /Tuesday sky-watching/ })
    .click();
  await maren.page.getByText('The door, guests, and a new link').click();
  await maren.button('Retire the course …').click();
  await maren.button('Retire the course').click();
  await expect(maren.page.getByText('This course is retired')).toBeVisible();
  await other.page.goto(link);
  await expect(other.page.getByText('This link is no longer in use')).toBeVisible();
});

test('a guest comes by a link of their own, and nobody else by that', async ({ browser }) => {
  const maren = await Someone.at(browser, { permissions: ['clipboard-read', 'clipboard-write'] });
  await maren.setUp(server.url);
  await maren.makeCourse('Tides', 'ask');
  await maren.page.getByText('The door, guests, and a new link').click();
  await maren.page.getByRole('textbox', { name: 'Guest' }).fill('Aunt Liv');
  await maren.button('Make and copy').click();
  await expect(maren.page.getByText('not used yet')).toBeVisible();
  const link = await maren.page.evaluate(() => navigator.clipboard.readText());
  await maren.bring('Tides.pdf', await samplePdf(1));
  await maren.openLesson();

  const liv = await Someone.at(browser);
  await liv.page.goto(link);
  await expect(liv.page.getByLabel('Your first name')).toHaveValue('Aunt Liv');
  await liv.button('Go in').click();
  await expect(maren.page.getByText('came by the link for Aunt Liv')).toBeVisible();
  await maren.button('Let Aunt Liv in').click();
  await liv.isOnBoard();

  const stranger = await Someone.at(browser);
  await stranger.knock(link, 'Liv');
  await expect(stranger.page.getByText('made for one guest')).toBeVisible();
});
