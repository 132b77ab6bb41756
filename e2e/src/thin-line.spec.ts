import { expect, test } from './story.js';
import { SharedProcessServer } from './house.js';
import { samplePdf } from './pdfs.js';
import { Someone } from './people.js';
import type { PagePoint } from './people.js';
import { ThinLine } from '../../apps/server/dist/testing/thin-line.js';

/* 64 kbit/s, 400 ms there and back, one segment of fifty lost: a telephone at the edge of a network. */
const THIN = { rate: 64_000, delay: 200, loss: 0.02 } as const;

/** How much later one sees something than another, in ms. */
async function laterBy(
  first: Someone,
  second: Someone,
  sees: (who: Someone) => Promise<void>,
): Promise<number> {
  const when = async (who: Someone): Promise<number> => {
    await sees(who);
    return Date.now();
  };
  const [early, late] = await Promise.all([when(first), when(second)]);
  return late - early;
}

const across = (y: number, from = 80): PagePoint[] =>
  [0, 40, 80, 120].map((x) => ({ x: from + x, y }));

test(
  'on a line of 64 kbit/s writing stays usable and nothing is lost',
  { tag: '@alone' },
  async ({ browser }) => {
    const server = await SharedProcessServer.start();
    const line = await ThinLine.to(server.port);
    const maren = await Someone.at(browser);
    await maren.setUp(server.url);
    await maren.makeCourse('Tuesday sky-watching');
    await maren.bring('Sky.pdf', await samplePdf(2));
    const way = await maren.openLesson();
    const [first] = (await maren.pageIds()) as [string];
    const noor = await Someone.at(browser);
    await noor.join(line.url + way, 'Noor');
    // Somebody on a good line, to compare with: however busy this machine is, it is as busy for both.
    const ida = await Someone.at(browser);
    await ida.join(server.url + way, 'Ida');
    await maren.button('Writing for all').click();
    await ida.isTold('You have a pen');
    await noor.isTold('You have a pen');
    await noor.isSharp();
    line.thinness = THIN;
    let breaks = 0;
    noor.page.on('websocket', () => breaks++);

    await test.step('one’s own ink is there at once, and the tutor’s within two seconds', async () => {
      await noor.draw(first, across(120));
      await noor.seesInkAt(first, { x: 140, y: 120 });
      expect((await noor.lines()).length).toBe(1);
      // Seen while it is still being drawn.
      await maren.penDown(first, across(160));
      expect(
        await laterBy(ida, noor, (who) => who.seesInkAt(first, { x: 140, y: 160 })),
      ).toBeLessThan(2000);
      await maren.penUp();
    });

    await test.step('both write on, for long, and every line arrives', async () => {
      const write = async (who: Someone, from: number): Promise<void> => {
        for (let n = 0; n < 40; n++) await who.draw(first, across(200 + n * 3, from));
      };
      const before = line.came;
      const began = Date.now();
      await Promise.all([write(maren, 80), write(noor, 260)]);
      const kbits = ((line.came - before) * 8) / (Date.now() - began);
      console.log(`thin line: ${kbits.toFixed(1)} kbit/s came while both wrote`);
      await expect(async () => {
        const [left, right] = [await maren.lines(), await noor.lines()];
        expect(left.length).toBe(82);
        expect(right).toEqual(left);
      }).toPass({ timeout: 45_000 });
    });

    await test.step('pens are taken in within two seconds, and the tutor sees how the line is', async () => {
      await maren.button('Take all pens back').click();
      expect(await laterBy(ida, noor, (who) => who.isTold('Watching'))).toBeLessThan(2000);
      await expect(
        maren.page.getByRole('img', { name: /(Fair|Poor) line: \d+ ms/ }).first(),
      ).toBeVisible();
    });

    await test.step('the line never counted as broken; a reload is back with everything', async () => {
      expect(breaks).toBe(0);
      await noor.page.reload();
      await noor.isOnBoard();
      await expect.poll(async () => (await noor.lines()).length).toBe(82);
    });
    line.close();
    await server.close();
  },
);
