import { writeFileSync } from 'node:fs';
import { resolve } from 'node:path';
import type { CDPSession } from '@playwright/test';
import { SEQUENCES } from '../../apps/web/src/app/board/stage/touch-sequences.js';
import type { Sequence, Touch } from '../../apps/web/src/app/board/stage/touch-sequences.js';
import { expect, test } from './story.js';
import { SharedProcessServer } from './house.js';
import { samplePdf } from './pdfs.js';
import { Someone } from './people.js';
import type { PagePoint } from './people.js';

/*
 * What hands, palms and pens do, put into Chromium where devices put it in (its DevTools protocol, domain “Input”):
 * from there on all is the browser's own, as events come to the page, with what it makes of sizes, captures and
 * cancelled touches.
 */

/** What came to the page of a pointer, in the words of the sequences, and whether the browser sent it. */
interface Came extends Required<Touch> {
  readonly isTrusted: boolean;
}

/** Where what comes is kept for the specs of gestures, when `RECORD_TOUCHES` is set. */
const RECORDED = resolve(
  import.meta.dirname,
  '../../apps/web/src/app/board/stage/recorded-touches.json',
);

let server: SharedProcessServer;
test.beforeEach(async () => {
  server = await SharedProcessServer.start();
});
test.afterEach(() => server.close());

/**
 * Plays a sequence from a place on the screen on. Its times are those of the events, which nobody waits for: it ends now,
 * as a browser takes no event from the future.
 */
async function play(input: CDPSession, { touches }: Sequence, from: PagePoint): Promise<void> {
  const start = (Date.now() - touches.at(-1)!.t) / 1000;
  const down = new Map<number, Touch>();
  for (const touch of touches) {
    const { id, kind, type } = touch;
    const [x, y] = [from.x + touch.x, from.y + touch.y];
    const timestamp = start + touch.t / 1000;
    if (type === 'touch') {
      if (kind === 'up' || kind === 'cancel') down.delete(id);
      else down.set(id, touch);
      const change = {
        down: 'touchStart',
        move: 'touchMove',
        up: 'touchEnd',
        cancel: 'touchCancel',
      };
      await input.send('Input.dispatchTouchEvent', {
        type: change[kind] as 'touchStart',
        timestamp,
        touchPoints: [...down.values()].map((point) => ({
          ...{ id: point.id, x: from.x + point.x, y: from.y + point.y, force: 0.5 },
          ...{ radiusX: (point.width ?? 20) / 2, radiusY: (point.height ?? 20) / 2 },
        })),
      });
    } else {
      const change = { down: 'mousePressed', move: 'mouseMoved', up: 'mouseReleased' };
      if (kind === 'cancel') throw new Error('A pen is never taken away in these sequences.');
      const presses = kind === 'down' || (kind === 'move' && touch.buttons === 1);
      await input.send('Input.dispatchMouseEvent', {
        ...{ type: change[kind] as 'mousePressed', timestamp, x, y, pointerType: 'pen' },
        ...{ button: presses || kind === 'up' ? 'left' : 'none', buttons: presses ? 1 : 0 },
        ...{ clickCount: kind === 'move' ? 0 : 1, force: touch.pressure ?? 0 },
      });
    }
  }
}

test('hands, palms and pens write and move as they mean to, through the browser’s own input', async ({
  browser,
}) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Tablets');
  await maren.bring('Sheet.pdf', await samplePdf(1));
  const link = await maren.openLesson();
  const [page] = (await maren.pageIds()) as [string];

  /** A tablet on which no pen has been, with the page larger than its window: it can be moved in all directions. */
  const tablet = async (name: string): Promise<Someone> => {
    const noor = await Someone.at(browser, {
      viewport: { width: 820, height: 1180 },
      hasTouch: true,
    });
    await noor.join(server.url + link, name);
    if (name === 'Noor 0') await maren.button('Writing for all').click();
    await noor.isTold('You have a pen');
    await noor.stage.focus();
    for (let k = 0; k < 3; k++) await noor.page.keyboard.press('+');
    await noor.isSharp();
    return noor;
  };
  // Sequences with a pen have a tablet of their own each; one after the other on one board.
  const ofFingers = await tablet('Noor 0');
  let lines = 0;
  const recorded: Record<string, Touch[]> = {};
  for (const [i, sequence] of SEQUENCES.entries()) {
    // How long a pen has been away is known by the clock: see the specs of gestures.
    if (sequence.touches.some(({ t }) => t > 8000)) continue;
    await test.step(sequence.what, async () => {
      const hasPen = sequence.touches.some(({ type }) => type === 'pen');
      const noor = hasPen ? await tablet(`Noor ${i + 1}`) : ofFingers;
      // No event is older than its page.
      const long = sequence.touches.at(-1)!.t;
      await noor.page.waitForFunction((ms) => performance.now() > ms, long);
      const came = await listen(noor);
      const before = await noor.locate(page, { x: 0, y: 0 });
      await play(await noor.page.context().newCDPSession(noor.page), sequence, {
        x: 260,
        y: 200,
      });
      lines += sequence.strokes.length;
      await expect.poll(() => maren.lines().then((all) => all.length)).toBe(lines);
      const place = (): Promise<PagePoint> => noor.locate(page, { x: 0, y: 0 });
      if (sequence.moved) await expect.poll(place).not.toEqual(before);
      else expect(await place()).toEqual(before);
      const events = await came();
      isAsWritten(sequence, events);
      recorded[sequence.what] = events.map(toKeep);
      if (hasPen) await noor.leave();
    });
  }
  if (process.env['RECORD_TOUCHES'])
    writeFileSync(
      RECORDED,
      `${JSON.stringify({ browser: browser.version(), recorded }, null, 2)}\n`,
    );
});

/** Rounded as far as anything depends on it; times from the first event on. */
function toKeep(touch: Came, _i: number, [first]: readonly Came[]): Touch {
  const round = (n: number): number => Math.round(n * 100) / 100;
  const { t, id, kind, type, x, y, width, height, pressure, buttons } = touch;
  return {
    ...{ t: round(t - first!.t), id, kind, type, x: round(x), y: round(y), buttons },
    ...{ width: round(width), height: round(height), pressure: round(pressure) },
  };
}

/** Notes what comes to the stage of pointers from now on. */
async function listen(who: Someone): Promise<() => Promise<Came[]>> {
  const came = await who.stage.evaluateHandle((element) => {
    const list: Came[] = [];
    /** What is an event's own can't be spread: its class has it. */
    const own = (event: PointerEvent) => {
      const { pointerType, pointerId, timeStamp, clientX: x, clientY: y } = event;
      const { width, height, pressure, buttons, isTrusted } = event;
      return {
        ...{ pointerType, pointerId, timeStamp, x, y },
        ...{ width, height, pressure, buttons, isTrusted },
      };
    };
    for (const kind of ['down', 'move', 'up', 'cancel'] as const)
      element.addEventListener(
        `pointer${kind}`,
        (event) => {
          const { pointerType, pointerId: id, timeStamp: t, ...of } = own(event as PointerEvent);
          list.push({ t, id, kind, type: pointerType as Touch['type'], ...of });
        },
        { capture: true },
      );
    return list;
  });
  return () => came.jsonValue();
}

/** The sequences' specs send what a browser sends: of each device in this order, as large, as strong. */
function isAsWritten({ touches }: Sequence, came: readonly Came[]): void {
  for (const { isTrusted } of came) expect(isTrusted).toBe(true);
  const ends = (all: readonly { kind: string; type: string }[], type: string): string[] =>
    all.filter((one) => one.type === type && one.kind !== 'move').map(({ kind }) => kind);
  for (const type of ['touch', 'pen']) expect(ends(came, type)).toEqual(ends(touches, type));
  const first = touches.find(({ type, kind }) => type === 'touch' && kind === 'down');
  const firstCame = came.find(({ type, kind }) => type === 'touch' && kind === 'down');
  if (first?.width) expect(firstCame!.width).toBeCloseTo(first.width, 0);
  if (first?.height) expect(firstCame!.height).toBeCloseTo(first.height, 0);
  const pen = touches.find(({ type, kind }) => type === 'pen' && kind === 'down');
  const penCame = came.find(({ type, kind }) => type === 'pen' && kind === 'down');
  if (pen) expect(penCame!.pressure).toBeCloseTo(pen.pressure!, 2);
}
