import { emptyBoard } from '@cuaderno/core/board';
import { fold } from '@cuaderno/core/log';
import { newId } from '@cuaderno/core/id';
import { operation } from '@cuaderno/core/ops';
import type { Entry } from '@cuaderno/core/log';
import { encodeStroke } from '@cuaderno/core/ink';
import { Replay } from '@cuaderno/core/replay';
import { addPages, handwriting, somePages } from '@cuaderno/core/testing';
import { Player } from './player';

const OPENED = Date.UTC(2026, 10, 24, 15, 30);

describe('playing a lesson', () => {
  let player: Player;
  let draw: ((now: number) => void) | null;

  /** Frames pass: one every 20 ms for so long. */
  function pass(ms: number, from: number): number {
    for (let now = from; now <= from + ms; now += 20) {
      const next = draw;
      draw = null;
      next?.(now);
    }
    return from + ms;
  }

  beforeEach(() => {
    const pages = somePages(1);
    const by = newId();
    const first: Entry = { seq: 1, by, at: OPENED, lesson: null, op: addPages(pages) };
    const before = fold(emptyBoard(newId()), [first]);
    const entries = [20_000, 40_000].map((after, i): Entry => ({
      seq: i + 2,
      by,
      at: OPENED + after,
      lesson: by,
      op: operation({
        kind: 'ink.add',
        page: pages[0]!.id,
        ink: encodeStroke(handwriting(i, { count: 120 })),
      }),
    }));
    const replay = new Replay(before, entries);
    draw = null;
    const whole = { from: OPENED, to: OPENED + 60_000 };
    player = new Player(replay, whole, replay.events, {
      next: (fn) => {
        draw = fn;
        return 1;
      },
      cancel: () => (draw = null),
    });
  });

  const lines = (): number =>
    [...player.moment().board.pages.values()].reduce((sum, { items }) => sum + items.size, 0);

  it('goes as fast as it was, and faster', () => {
    player.setSkipsIdle(false);
    player.play();
    let now = pass(1000, 0);
    expect(player.at()).toBe(1000);
    expect(player.time()).toBe(OPENED + 1000);
    player.speed.set(16);
    now = pass(1000, now);
    expect(player.at()).toBeGreaterThan(16_000);
    expect(lines()).toBe(0);
    pass(1000, now);
    expect(lines()).toBe(1);
  });

  it('passes over what is idle, and stays at its moment when that is switched', () => {
    expect(player.length()).toBeLessThan(8000);
    player.goToTime(OPENED + 39_900);
    expect(player.moment().drawing.length).toBe(1);
    player.setSkipsIdle(false);
    expect(player.time()).toBeCloseTo(OPENED + 39_900, 0);
    expect(player.at()).toBeCloseTo(39_900, 0);
  });

  it('stops at the end, and begins anew from there', () => {
    player.goTo(1e9);
    expect(player.at()).toBe(player.length());
    expect(lines()).toBe(2);
    player.play();
    expect(player.at()).toBe(0);
    pass(10_000, 0);
    expect(player.isPlaying()).toBeFalse();
    expect(lines()).toBe(2);
  });

  it('waits while it is paused, and doesn’t run on while the window was behind others', () => {
    player.play();
    let now = pass(200, 0);
    player.pause();
    expect(draw).toBeNull();
    const there = player.at();
    player.play();
    now = pass(0, now + 60_000);
    expect(player.at()).toBe(there);
    draw!(now + 60_000);
    expect(player.at()).toBe(there + 250);
  });
});
