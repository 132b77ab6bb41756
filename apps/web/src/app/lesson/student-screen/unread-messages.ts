import { computed, effect, signal, untracked } from '@angular/core';
import type { BoardSession } from '../../live/board-session';

/** Messages of others that weren't read yet. One object, made where effects can be. */
export class UnreadMessages {
  private readonly read = signal(0);
  private readonly others = computed(() => {
    const session = this.session();
    return session?.features.talk.chat().filter(({ by }) => by !== session.me()).length ?? 0;
  });
  readonly count = computed(() => Math.max(0, this.others() - this.read()));

  /** @param reads whether the messages are in sight */
  constructor(
    private readonly session: () => BoardSession | null,
    reads: () => boolean,
  ) {
    effect(() => {
      const others = this.others();
      if (reads() || others < untracked(this.read)) this.read.set(others);
    });
  }
}
