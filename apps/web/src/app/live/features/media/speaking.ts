import { signal } from '@angular/core';
import type { Id } from '@cuaderno/core/id';

/** From here on it is a voice and not the room: -40 dB of full scale. Common practice, no source. */
const VOICE = 0.01;
/** How long somebody still speaks who draws breath, in ms. Common practice, no source. */
const BREATH = 1000;

/** Who speaks this moment. */
export class Speaking {
  readonly now = signal<ReadonlySet<Id>>(new Set());
  /** When somebody was heard last, by the clock of the page. */
  private readonly heardAt = new Map<Id, number>();

  /** @param levels of each who can be heard, how loud they are, from 0 to 1 */
  look(levels: ReadonlyMap<Id, number>): void {
    const at = performance.now();
    for (const [person, level] of levels) if (level > VOICE) this.heardAt.set(person, at);
    for (const [person, when] of [...this.heardAt])
      if (at - when > BREATH || !levels.has(person)) this.heardAt.delete(person);
    const before = this.now();
    if (this.heardAt.size !== before.size || [...this.heardAt.keys()].some((id) => !before.has(id)))
      this.now.set(new Set(this.heardAt.keys()));
  }
}
