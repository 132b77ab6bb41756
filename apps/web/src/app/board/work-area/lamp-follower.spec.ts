import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { Lamp } from '@cuaderno/core/features';
import { LampFollower } from './lamp-follower';

const at = (y: number): Lamp => ({
  ...{ page: 'page_1______', shape: 'round' },
  ...{ x: 10, y, width: 20, height: 40 },
});

describe('a window where the lamp is lit', () => {
  const lamp = signal<Lamp | null>(null);
  const moved = signal(0);
  let atPage: boolean;
  let went: number[];

  beforeEach(() => {
    lamp.set(null);
    atPage = true;
    went = [];
    TestBed.runInInjectionContext(
      () =>
        new LampFollower(lamp, () => ({
          moved,
          view: { sees: () => atPage, reveal: (_page, { y }) => void went.push(y) },
        })),
    );
    TestBed.tick();
  });

  function light(to: Lamp | null): void {
    lamp.set(to);
    TestBed.tick();
  }

  it('goes to the middle of it, and again when it has moved', () => {
    light(at(100));
    light(at(300));
    expect(went).toEqual([120, 320]);
  });

  it('is left alone while the lamp stays where it is', () => {
    light(at(100));
    moved.update((n) => n + 1);
    TestBed.tick();
    // Told once more, as with every arrow that is left standing.
    light(at(100));
    expect(went).toEqual([120]);
    light(null);
    expect(went).toEqual([120]);
  });

  it('goes there once it comes to that page, as who comes late does', () => {
    atPage = false;
    light(at(100));
    expect(went).toEqual([]);
    atPage = true;
    moved.update((n) => n + 1);
    TestBed.tick();
    expect(went).toEqual([120]);
  });
});
