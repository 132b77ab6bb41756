import { expect, test } from './story.js';
import { SharedProcessServer } from './house.js';
import { samplePdf } from './pdfs.js';
import { Someone } from './people.js';
import type { Page } from '@playwright/test';

/* From the link to a written, moved and removed text, and a line, without a mouse (WCAG 2.2: 2.1.1, 2.4.3, 2.5.7). */

let server: SharedProcessServer;
test.beforeEach(async () => (server = await SharedProcessServer.start()));
test.afterEach(() => server.close());

/** Tabs until what is focused is called so. */
async function tabTo(page: Page, name: string | RegExp): Promise<void> {
  const fits = (said: string): boolean =>
    typeof name === 'string' ? said === name : name.test(said);
  for (let i = 0; i < 80; i++) {
    const said = await page.evaluate(() => {
      const at = document.activeElement;
      return (at?.getAttribute('aria-label') ?? at?.textContent ?? '').replace(/\s+/g, ' ').trim();
    });
    if (fits(said)) return;
    await page.keyboard.press('Tab');
  }
  throw new Error(`Never came to ${String(name)}`);
}

interface Item {
  readonly kind: string;
  readonly frame?: { readonly x: number; readonly y: number; readonly turn: number };
}

/** What lies on the page in view, as the stage has it. */
function itemsOn(who: Someone): Promise<Item[]> {
  return who.page.evaluate(() => {
    interface Stage {
      page(): string;
      board(): { pages: Map<string, { items: Map<string, Item & { removed: unknown }> }> };
    }
    const host = document.querySelector('cua-stage .host') as unknown as { cuaStage: Stage };
    const stage = host.cuaStage;
    return [...stage.board().pages.get(stage.page())!.items.values()]
      .filter(({ removed }) => !removed)
      .map(({ kind, frame }) => ({ kind, frame }));
  });
}

test('a student comes in, writes a line and a text, moves it, turns it and takes it away, by keys alone', async ({
  browser,
}) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Reading the tides');
  await maren.bring('Tides.pdf', await samplePdf(1));
  const join = await maren.openLesson();
  await maren.button('Writing for all').click();

  const ida = await Someone.at(browser);
  const { keyboard } = ida.page;
  await ida.page.goto(server.url + join);
  await expect(ida.page.getByLabel('Your first name')).toBeFocused();
  await keyboard.type('Ida');
  await keyboard.press('Enter');
  await ida.isTold('You have a pen');
  await ida.isSharp();

  // The pen is in hand at first. Enter brings the cursor, and puts the pen down.
  await tabTo(ida.page, /^Board\./);
  await keyboard.press('Enter');
  await expect(ida.page.locator('.key-cursor')).toBeVisible();
  await expect(ida.page.getByText(/% across, .* % down the page/)).toBeAttached();
  await keyboard.press('Enter');
  for (let i = 0; i < 5; i++) await keyboard.press('ArrowRight');
  for (let i = 0; i < 3; i++) await keyboard.press('ArrowDown');
  await keyboard.press('Enter');
  await expect.poll(() => maren.lines().then((lines) => lines.length)).toBe(1);
  await keyboard.press('Escape');
  await expect(ida.page.locator('.key-cursor')).toBeHidden();

  // A text: its tool has a letter, and the page has the focus again when it is written.
  await keyboard.press('t');
  await keyboard.press('Enter');
  for (let i = 0; i < 3; i++) await keyboard.press('ArrowUp');
  await keyboard.press('Enter');
  await expect(ida.page.getByLabel('Text on the page')).toBeFocused();
  await keyboard.type('High water at ten');
  await keyboard.press('Escape');
  const kinds = async (): Promise<string[]> => (await itemsOn(maren)).map(({ kind }) => kind);
  await expect.poll(kinds).toEqual(['ink', 'text']);
  // Who can't see the page has it in words, in the accessibility tree: what is printed, then what lies there.
  for (const who of [maren, ida]) {
    const words = who.page.getByRole('region', { name: 'Page 1 in words' });
    await expect(words).toContainText('Text: High water at ten');
    await expect(words).toContainText(/Ida wrote one line, (top|middle|bottom) /);
    await expect(words.getByRole('paragraph')).toHaveText('Sheet 1 of 1');
    expect(await words.ariaSnapshot()).toMatch(/paragraph: Sheet 1 of 1\s+- list:\s+- listitem:/);
  }
  await expect(ida.page.locator('cua-stage .host')).toBeFocused();

  // It is chosen, moved and turned by buttons, and taken away.
  await keyboard.press('c');
  await keyboard.press('Tab');
  await keyboard.press('Tab');
  await expect(ida.page.getByText('1 thing chosen')).toBeVisible();
  const text = async (who = maren): Promise<NonNullable<Item['frame']>> =>
    (await itemsOn(who)).find(({ kind }) => kind === 'text')!.frame!;
  const before = await text();
  await ida.button('Arrange …').focus();
  await keyboard.press('Enter');
  await ida.button('Move left').focus();
  await keyboard.press('Enter');
  await ida.button('Turn right').focus();
  await keyboard.press('Enter');
  await expect.poll(async () => Math.round((await text()).x - before.x)).toBe(-10);
  await expect.poll(async () => (await text()).turn).toBe(15);
  await ida.button('Remove').focus();
  await keyboard.press('Enter');
  await expect.poll(kinds).toEqual(['ink']);
});
