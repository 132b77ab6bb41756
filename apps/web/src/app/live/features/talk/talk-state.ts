import { signal } from '@angular/core';
import { newId } from '@cuaderno/core/id';
import type { ChatLine, ChatTo, Signal } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import type { ServerHandlers, LessonFeature, Send } from '../feature';

/** Hands, signals and the chat. Whose hand is up and what is signalled is told with the people. */
export class TalkState implements LessonFeature<'talk'> {
  /** What is written in the chat, as far as one may read it, the earlier first. */
  readonly chat = signal<readonly ChatLine[]>([]);

  readonly handlers: ServerHandlers<'talk'> = {
    chat: ({ lines }) => {
      const known = new Set(this.chat().map(({ id }) => id));
      const fresh = lines.filter(({ id }) => !known.has(id));
      this.chat.update((all) => [...all, ...fresh].sort((a, b) => a.at - b.at));
    },
    'chat.empty': () => this.chat.set([]),
  };

  constructor(private readonly send: Send) {}

  begin(): void {
    // It is told anew.
  }

  clear(): void {
    this.chat.set([]);
  }

  leave(): void {
    // It has nothing of the machine.
  }

  raise(up: boolean): void {
    this.send({ kind: 'hand', up });
  }

  lower(who: Id | 'all'): void {
    this.send({ kind: 'lower', who });
  }

  signal(signal: Signal | null): void {
    this.send({ kind: 'signal', signal });
  }

  clearSignals(): void {
    this.send({ kind: 'signals.clear' });
  }

  /** Returns whether it is on its way: it is in the chat when it comes back. */
  write(to: ChatTo, text: string): boolean {
    return this.send({ kind: 'chat', id: newId(), to, text });
  }

  emptyChat(): void {
    this.send({ kind: 'chat.empty' });
  }
}
