import { signal } from '@angular/core';
import type { ServerHandlers, LessonFeature } from '../feature';

/** What was fetched besides the board isn't so any more. Each goes up when that is said. */
export class InvalidationState implements LessonFeature<'invalidation'> {
  /** What students may look at. */
  readonly materials = signal(0);
  /** Late lines have come, or it was decided about them. */
  readonly late = signal(0);
  /** Something was handed over, fetched or taken back. */
  readonly handed = signal(0);

  readonly handlers: ServerHandlers<'invalidation'> = {
    materials: () => this.materials.update((n) => n + 1),
    late: () => this.late.update((n) => n + 1),
    handed: () => this.handed.update((n) => n + 1),
  };

  begin(): void {
    // Anyone who comes fetches it anyway.
  }

  clear(): void {
    // It only ever goes up.
  }

  leave(): void {
    // It has nothing of the machine.
  }
}
