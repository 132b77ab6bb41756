import { expect, test } from './story.js';
import { SharedProcessServer } from './house.js';
import { samplePdf } from './pdfs.js';
import { Someone } from './people.js';

/*
 * Where the system paints everything in a few colours of its own, what is chosen can't be told by a tint: it has an
 * edge, or the system's colour for what is chosen (CSS Color Adjustment 1, 3; WCAG 2.2, 1.4.11).
 */

let server: SharedProcessServer;
test.beforeEach(async () => {
  server = await SharedProcessServer.start();
});
test.afterEach(() => server.close());

/** Names of what is chosen and looks like its neighbours that aren't; and what was looked at. */
function chosenAlike(who: Someone): Promise<{ alike: string[]; chosen: number }> {
  return who.page.evaluate(() => {
    const states = ['aria-pressed', 'aria-selected', 'aria-checked', 'aria-current'];
    const isOn = (element: Element): boolean =>
      states.some((state) => !['false', null].includes(element.getAttribute(state)));
    const seen = (element: Element): boolean =>
      element.checkVisibility({ visibilityProperty: true }) &&
      element.getBoundingClientRect().width > 0;
    const look = (element: Element): string =>
      [element, ...element.querySelectorAll(':scope > *')]
        .map((one) => {
          const { outline, border, backgroundColor, boxShadow, textDecorationLine } =
            getComputedStyle(one);
          return [outline, border, backgroundColor, boxShadow, textDecorationLine].join(' ');
        })
        .join('|');
    const all = [...document.querySelectorAll(states.map((state) => `[${state}]`).join(','))];
    const chosen = all.filter((element) => isOn(element) && seen(element));
    const alike = chosen.filter((one) => {
      const others = all.filter(
        (other) =>
          other.parentElement?.parentElement === one.parentElement?.parentElement &&
          !isOn(other) &&
          seen(other) &&
          other.className.split(' ')[0] === one.className.split(' ')[0],
      );
      return others.some((other) => look(other) === look(one));
    });
    return {
      alike: alike.map(
        (one) => one.getAttribute('aria-label') ?? (one as HTMLElement).innerText.trim(),
      ),
      chosen: chosen.length,
    };
  });
}

test('what is chosen is seen where the system’s own colours are forced', async ({ browser }) => {
  const maren = await Someone.at(browser, { forcedColors: 'active' });
  await maren.setUp(server.url);
  await maren.makeCourse('Tides');
  await maren.bring('Tides.pdf', await samplePdf(3));
  const ida = await Someone.at(browser, { forcedColors: 'active' });
  await ida.join(server.url + (await maren.openLesson()), 'Ida');
  await maren.give('Ida', 'Writing');
  await ida.isTold('You have a pen');
  await maren.button('Private notes').click();
  for (const who of [maren, ida]) {
    const { alike, chosen } = await chosenAlike(who);
    expect(chosen).toBeGreaterThan(2);
    expect(alike).toEqual([]);
  }
});
