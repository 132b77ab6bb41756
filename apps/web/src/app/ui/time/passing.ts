import type { Signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { map, of, startWith, Subject, switchMap, timer } from 'rxjs';

/** Something that is said for a while, and then isn't any more. To be made where things are injected. */
export class Passing<T> {
  private readonly said = new Subject<T | null>();
  /** What was said last, as long as that is so; `null` else. */
  readonly now: Signal<T | null>;

  /** @param ms for how long each is said, unless another is said before */
  constructor(ms: number) {
    const passes = (what: T | null) =>
      what === null
        ? of(null)
        : timer(ms).pipe(
            map(() => null),
            startWith(what),
          );
    this.now = toSignal(this.said.pipe(switchMap(passes)), { initialValue: null });
  }

  say(what: T): void {
    this.said.next(what);
  }

  clear(): void {
    this.said.next(null);
  }
}
