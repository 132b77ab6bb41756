import { expect, test } from './story.js';
import { SharedProcessServer } from './house.js';
import { samplePdf } from './pdfs.js';
import { Someone } from './people.js';

test('a student who comes at the wrong hour is told the right one, in their own time zone, and is in when it comes', async ({
  browser,
}) => {
  const server = await SharedProcessServer.start();
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Tuesday sky-watching');
  // Tuesdays at four in the afternoon in Oslo: there is no screen for a course’s hour yet but the demo’s.
  const link = await maren.page.evaluate(async () => {
    const slot = { weekday: 2, startsAt: '16:00', minutes: 50, zone: 'Europe/Oslo' };
    const answer = await fetch('/api/courses', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ name: 'Tides', slot }),
    });
    const course = (await answer.json()) as { id: string; linkToken: string };
    await fetch(`/api/courses/${course.id}/door`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ door: 'all' }),
    });
    location.assign(`/courses/${course.id}`);
    return `/join/${course.linkToken}`;
  });
  await expect(maren.page.getByText('How students come in')).toBeVisible();
  await maren.bring('Tides.pdf', await samplePdf(2));

  const ida = await Someone.at(browser, { timezoneId: 'Europe/Oslo' });
  const noor = await Someone.at(browser, {
    ...{ timezoneId: 'Asia/Tokyo', viewport: { width: 390, height: 844 }, hasTouch: true },
  });
  await ida.page.goto(server.url + link);
  await noor.page.goto(server.url + link);
  await expect(ida.page.getByText(/next lesson is .*16:00/)).toBeVisible();
  // Oslo is eight hours behind Tokyo in winter and seven in summer (IANA time zone database).
  await expect(noor.page.getByText(/next lesson is .*(00:00|23:00)/)).toBeVisible();
  await expect(noor.button('Go in')).toHaveCount(0);

  // Noor says that she is here: Maren is told, whatever she is doing; so is her window's title.
  await noor.page.getByLabel('Your first name').fill('Noor');
  await noor.button('Say that I’m here').click();
  await expect(noor.page.getByText('is told that you are here')).toBeVisible();
  await expect(maren.page.getByRole('link', { name: /Noor.*waiting for/ })).toBeVisible();
  await expect(maren.page).toHaveTitle(/^\(\d waiting\) /);

  // Maren opens it now: who waited on the page comes in from there, without asking anyone.
  await maren.openLesson();
  await expect(noor.page.getByLabel('Your first name')).toHaveValue('Noor');
  await noor.button('Go in').click();
  await noor.isOnBoard();

  // After the hour the link says again when the next one is.
  await maren.button('Close the lesson').click();
  await maren.page.getByRole('dialog').getByRole('button', { name: 'Close the lesson' }).click();
  await expect(noor.page.getByText('The lesson is over')).toBeVisible();
  await ida.page.goto(server.url + link);
  await expect(ida.page.getByText(/next lesson is .*16:00/)).toBeVisible();
  await server.close();
});
