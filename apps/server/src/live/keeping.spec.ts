import type { FastifyBaseLogger } from 'fastify';
import { Keeping } from './keeping.js';

describe('keeping what is written', () => {
  const log = { error: () => undefined, info: () => undefined } as unknown as FastifyBaseLogger;
  let full: boolean;
  let tries: number;
  let told: boolean[];
  let keeping: Keeping;

  /** Time passes, and a try that is made meanwhile comes to its end. */
  async function pass(ms: number): Promise<void> {
    jasmine.clock().tick(ms);
    for (let i = 0; i < 5; i++) await Promise.resolve();
  }

  beforeEach(() => {
    jasmine.clock().install();
    full = true;
    tries = 0;
    told = [];
    keeping = new Keeping(() => {
      tries++;
      return full ? Promise.reject(new Error('no room')) : Promise.resolve();
    }, log);
    keeping.onChange = (keeps) => told.push(keeps);
  });
  afterEach(() => {
    keeping.close();
    jasmine.clock().uninstall();
  });

  it('rests when there was no room, says so once, and goes on by itself when there is', async () => {
    expect(keeping.isOn).toBeTrue();
    keeping.lost();
    keeping.lost();
    expect(keeping.isOn).toBeFalse();
    expect(told).toEqual([false]);
    await pass(1500);
    await pass(1500);
    expect(tries).toBe(2);
    expect(told).toEqual([false]);
    full = false;
    await pass(1500);
    expect(told).toEqual([false, true]);
    expect(keeping.isOn).toBeTrue();
    await pass(10_000);
    expect(tries).toBe(3);
  });

  it('rests again where the disk is full again', async () => {
    keeping.lost();
    full = false;
    await pass(1500);
    keeping.lost();
    expect(told).toEqual([false, true, false]);
  });

  it('tells nobody any more once the server closes, also where a try is under way', async () => {
    keeping.lost();
    full = false;
    jasmine.clock().tick(1500);
    keeping.close();
    await pass(10_000);
    keeping.lost();
    expect(told).toEqual([false]);
    expect(tries).toBe(1);
  });
});
