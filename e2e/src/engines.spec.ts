import type { Page } from '@playwright/test';
import { expect, test } from './story.js';
import { SharedProcessServer } from './house.js';
import { ENGINES } from './other-engines.js';
import type { EngineWindow } from './other-engines.js';
import { samplePdf } from './pdfs.js';
import { Someone } from './people.js';
import type { PagePoint, StageElement } from './people.js';

/* The main story with a student in each engine that browsers are made of; Chromium has all the others. */

/** What a student does in a window of another engine, by what is seen there. */
class Student {
  constructor(readonly window: EngineWindow) {}

  /** Waits until these words are on the screen. */
  async reads(words: string): Promise<void> {
    await expect
      .poll(() => this.window.evaluate(() => document.body.innerText, null))
      .toContain(words);
  }

  /** Presses what is called so: a button, a link, or the field with this label. */
  async press(name: string): Promise<void> {
    const find = (wanted: string) => {
      const all = document.querySelectorAll<HTMLElement>('button, a, label');
      const found = [...all].find(({ innerText }) => innerText.trim() === wanted);
      const box = (found?.querySelector('input') ?? found)?.getBoundingClientRect();
      return box && box.width > 0 ? { x: box.x + box.width / 2, y: box.y + box.height / 2 } : null;
    };
    await expect.poll(() => this.window.evaluate(find, name)).not.toBeNull();
    await this.window.click((await this.window.evaluate(find, name))!);
  }

  lines(): Promise<string[]> {
    return this.window.evaluate(
      () =>
        [
          ...document
            .querySelector<StageElement>('cua-stage .host')!
            .cuaStage.board()
            .pages.values(),
        ]
          .flatMap((page) => [...page.items.values()].filter((item) => !item.removed))
          .map(({ id }) => id)
          .sort(),
      null,
    );
  }

  async isOnBoard(): Promise<void> {
    const isSharp = () =>
      document.querySelector<StageElement>('cua-stage .host')?.cuaStage.isSharp ?? false;
    await expect.poll(() => this.window.evaluate(isSharp, null)).toBe(true);
  }

  async draw(page: string, places: readonly PagePoint[]): Promise<void> {
    const inWindow = await this.window.evaluate(
      ([id, points]) => {
        const host = document.querySelector<StageElement>('cua-stage .host')!;
        const { x, y } = host.getBoundingClientRect();
        return points.map((place) => {
          const at = host.cuaStage.locate(id, place)!;
          return { x: x + at.x, y: y + at.y };
        });
      },
      [page, places] as const,
    );
    await this.window.drag(inWindow);
  }

  /** How dark the pages' canvas is at a place, from 0 (black) to 255. */
  darkness(page: string, place: PagePoint): Promise<number> {
    return this.window.evaluate(
      ([id, p]) => {
        const host = document.querySelector<StageElement>('cua-stage .host')!;
        const at = host.cuaStage.locate(id, p)!;
        const context = host.querySelector('canvas')!.getContext('2d')!;
        const [x, y] = [Math.round(at.x * devicePixelRatio), Math.round(at.y * devicePixelRatio)];
        const { data } = context.getImageData(x - 1, y - 1, 3, 3);
        return Math.min(...data.filter((_value, i) => i % 4 !== 3));
      },
      [page, place] as const,
    );
  }
}

const across = (y: number): PagePoint[] =>
  Array.from({ length: 7 }, (_, i) => ({ x: 100 + 40 * i, y }));

/** A link to the newest record of the course whose record is on the screen. */
function shareRecord(page: Page): Promise<string> {
  return page.evaluate(async () => {
    const lesson = location.pathname.split('/').pop()!;
    const { courses } = (await (await fetch('/api/today')).json()) as { courses: { id: string }[] };
    const answer = await fetch(`/api/courses/${courses[0]!.id}/record-links`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({
        lesson,
        forWhom: 'Ida’s parents',
        may: 'view',
        names: 'all',
        until: Date.now() + 86_400_000,
        zone: 'Europe/Oslo',
      }),
    });
    return `/shared/${((await answer.json()) as { token: string }).token}`;
  });
}

for (const [name, open] of Object.entries(ENGINES))
  test(`in ${name} a student comes in, writes and sees, and a parent looks at the record`, async ({
    browser,
  }) => {
    const server = await SharedProcessServer.start();
    const maren = await Someone.at(browser);
    const ida = new Student(await open());
    try {
      await maren.setUp(server.url);
      await maren.makeCourse('Tuesday sky-watching', 'ask');
      await maren.bring('Star chart.pdf', await samplePdf(2));
      const join = server.url + (await maren.openLesson());
      const [page] = (await maren.pageIds()) as [string];

      await test.step('join and door', async () => {
        await ida.window.goto(join);
        await ida.reads('with Maren Solheim');
        await ida.press('Your first name');
        await ida.window.type('Ida');
        await ida.press('Go in');
        await ida.reads('You are at the door');
        await maren.button('Let Ida in').click();
        await ida.isOnBoard();
      });

      await test.step('write and see', async () => {
        await maren.give('Ida', 'Writing');
        await ida.reads('You have a pen');
        await ida.draw(page, across(220));
        await expect.poll(() => maren.lines().then((lines) => lines.length)).toBe(1);
        await maren.seesInkAt(page, { x: 220, y: 220 });
        await maren.draw(page, across(260));
        await expect.poll(() => ida.lines().then((lines) => lines.length)).toBe(2);
        expect(await ida.lines()).toEqual(await maren.lines());
        await expect.poll(() => ida.darkness(page, { x: 220, y: 260 })).toBeLessThan(150);
        await ida.window.reload();
        await ida.isOnBoard();
        await expect.poll(() => ida.lines().then((lines) => lines.length)).toBe(2);
      });

      await test.step('the lesson ends, and the way leads into the next one', async () => {
        await maren.button('Close the lesson').click();
        const sure = maren.page.getByRole('dialog');
        await sure.getByRole('button', { name: 'Close the lesson' }).click();
        await expect(maren.page.getByText('Who was there')).toBeVisible();
        await ida.reads('The lesson is over');
        await ida.window.reload();
        await ida.reads('The lesson is over');
        await ida.press('To the next lesson');
        await ida.reads('The lesson isn’t open yet');
      });

      await test.step('the record, as a parent sees it', async () => {
        await ida.window.goto(server.url + (await shareRecord(maren.page)));
        await ida.reads('Tuesday sky-watching');
        const pictures = () =>
          [...document.querySelectorAll('main img')].filter(
            (img) => (img as HTMLImageElement).naturalWidth > 100,
          ).length;
        await expect.poll(() => ida.window.evaluate(pictures, null)).toBeGreaterThan(0);
      });
    } finally {
      await ida.window.close();
      await server.close();
    }
  });
