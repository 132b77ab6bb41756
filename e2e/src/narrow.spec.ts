import { expect, test } from './story.js';
import { SharedProcessServer } from './house.js';
import { samplePdf } from './pdfs.js';
import { Someone } from './people.js';

/* At 320 CSS px nothing is beside the screen (WCAG 2.2, 1.4.10), and what is touched is large enough to be hit. */

let server: SharedProcessServer;
test.beforeEach(async () => (server = await SharedProcessServer.start()));
test.afterEach(() => server.close());

const NARROW = { viewport: { width: 320, height: 640 }, hasTouch: true };
const TABLET = { viewport: { width: 820, height: 1180 }, hasTouch: true };
/** The least side of what is touched, in CSS px. */
const TOUCH = 44;

/** What is wider than the window, and what is too small for a finger. */
async function isNarrow(who: Someone, what: string): Promise<void> {
  const find = (least: number): { beside: string[]; small: string[] } => {
    const wide = document.documentElement.scrollWidth - innerWidth;
    const name = (element: Element): string =>
      `${element.tagName} ${element.getAttribute('aria-label') ?? element.textContent?.trim().slice(0, 40)}`;
    const beside = [...document.body.querySelectorAll('*')]
      .filter((element) => {
        const { right, width } = element.getBoundingClientRect();
        return wide > 0 && width > 0 && right > innerWidth + 1;
      })
      .map(name);
    const small = [...document.body.querySelectorAll('button, .cua-button, select, input')]
      .filter((element) => {
        const field = element.closest('label') ?? element;
        const { width, height } = field.getBoundingClientRect();
        const seen =
          (element as HTMLElement).checkVisibility({ visibilityProperty: true }) &&
          !element.matches('.unseen');
        return seen && width > 0 && (height < least - 0.5 || width < least - 0.5);
      })
      .map((element) => {
        const { width, height } = element.getBoundingClientRect();
        return `${name(element)} ${Math.round(width)}×${Math.round(height)}`;
      });
    return { beside: beside.slice(-5), small };
  };
  // What is still coming has no words yet that make it as wide as it will be.
  await expect
    .configure({ soft: true })
    .poll(() => who.page.evaluate(find, TOUCH), { message: what, timeout: 5_000 })
    .toEqual({ beside: [], small: [] });
}

test('the way in, today, the week, a lesson and a record fit a window of 320 px, and fingers', async ({
  browser,
}) => {
  const desk = await Someone.at(browser);
  await desk.setUp(server.url);
  await desk.makeCourse('Reading the tides at Flakstad');
  await desk.bring('Tides.pdf', await samplePdf(2));
  const board = desk.page.url();

  const ida = await Someone.at(browser, NARROW);
  await ida.page.goto(`${server.url}/join`);
  await expect(ida.page.getByLabel('Join code')).toBeVisible();
  await isNarrow(ida, 'the join code');
  const join = await desk.openLesson();
  await ida.page.goto(server.url + join);
  await expect(ida.page.getByLabel('Your first name')).toBeVisible();
  await isNarrow(ida, 'the first name');
  await ida.join(server.url + join, 'Ida');
  await ida.isSharp();
  await isNarrow(ida, 'the lesson');

  await desk.page.goto(board);
  await desk.isOnBoard();
  await desk.button('Close the lesson').click();
  await desk.page.getByRole('dialog').getByRole('button', { name: 'Close the lesson' }).click();
  await expect(ida.page.getByText('The lesson is over')).toBeVisible();
  await isNarrow(ida, 'over');

  // The tutor's own screens, on a phone in the hand.
  await desk.page.setViewportSize(NARROW.viewport);
  await desk.page.goto(`${server.url}/`);
  await expect(desk.page.getByRole('heading', { name: /^Today/ })).toBeVisible();
  await isNarrow(desk, 'today');
  await desk.button('Today').click();
  await isNarrow(desk, 'the list of screens');
  await desk.page.getByRole('link', { name: 'Week', exact: true }).click();
  await expect(desk.button('Plan lessons')).toBeVisible();
  await isNarrow(desk, 'the week');
  await desk.page.goto(`${server.url}/`);
  await desk.button('Today').click();
  await desk.page.getByRole('link', { name: 'Records', exact: true }).click();
  await desk.page.getByRole('link', { name: /Tides/ }).first().click();
  await expect(desk.button('Save…')).toBeVisible();
  await isNarrow(desk, 'a record');
});

test('on an upright tablet all that is touched in a lesson is large enough', async ({
  browser,
}) => {
  const maren = await Someone.at(browser, TABLET);
  await maren.setUp(server.url);
  await maren.makeCourse('Reading the tides');
  await isNarrow(maren, 'a course');
  await maren.bring('Tides.pdf', await samplePdf(3));
  await isNarrow(maren, 'a board');
  const ida = await Someone.at(browser, TABLET);
  await ida.join(server.url + (await maren.openLesson()), 'Ida');
  await maren.give('Ida', 'Hands on');
  await ida.isTold('Hands on');
  await isNarrow(ida, 'the lesson of a student with hands on');
  await isNarrow(maren, 'the lesson of a tutor');
  await maren.button('Private notes').click();
  await isNarrow(maren, 'with the margin');
  await maren.page.getByRole('button', { name: 'Chat' }).click();
  await isNarrow(maren, 'with the chat');
});
