import type { FastifyBaseLogger } from 'fastify';
import { StorageGuard } from './storage-guard.js';

describe('keeping what is written', () => {
  const log = { error: () => undefined, info: () => undefined } as unknown as FastifyBaseLogger;
  let full: boolean;
  let tries: number;
  let told: boolean[];
  let storageGuard: StorageGuard;

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
    storageGuard = new StorageGuard(() => {
      tries++;
      return full ? Promise.reject(new Error('no room')) : Promise.resolve();
    }, log);
    storageGuard.onChange = (keeps) => told.push(keeps);
  });
  afterEach(() => {
    storageGuard.close();
    jasmine.clock().uninstall();
  });

  it('rests when there was no room, says so once, and goes on by itself when there is', async () => {
    expect(storageGuard.isOn).toBeTrue();
    storageGuard.lost();
    storageGuard.lost();
    expect(storageGuard.isOn).toBeFalse();
    expect(told).toEqual([false]);
    await pass(1500);
    await pass(1500);
    expect(tries).toBe(2);
    expect(told).toEqual([false]);
    full = false;
    await pass(1500);
    expect(told).toEqual([false, true]);
    expect(storageGuard.isOn).toBeTrue();
    await pass(10_000);
    expect(tries).toBe(3);
  });

  it('rests again where the disk is full again', async () => {
    storageGuard.lost();
    full = false;
    await pass(1500);
    storageGuard.lost();
    expect(told).toEqual([false, true, false]);
  });

  it('tells nobody any more once the server closes, also where a try is under way', async () => {
    storageGuard.lost();
    full = false;
    jasmine.clock().tick(1500);
    storageGuard.close();
    await pass(10_000);
    storageGuard.lost();
    expect(told).toEqual([false]);
    expect(tries).toBe(1);
  });
});
