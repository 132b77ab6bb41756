import { signal } from '@angular/core';
import { newId } from '@cuaderno/core/id';
import type { Caption } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import type { ServerHandlers, LessonFeature, Send } from '../feature';

/** A line of one's own that isn't known to be kept. */
export interface UnconfirmedCaption {
  readonly id: Id;
  readonly text: string;
}

/** Lines that can be looked back at. */
const MOST = 100;

/** Typed captions: who types them, and what was typed. */
export class CaptionsState implements LessonFeature<'captions'> {
  /** Who types them; `null` while nobody does. */
  readonly writer = signal<Id | null>(null);
  /** The last lines, the earlier first. */
  readonly lines = signal<readonly Caption[]>([]);
  /** The line that somebody else is typing, as far as it is known. */
  readonly typing = signal('');
  /** Lines of one's own that were typed and aren't known to be kept: they are sent again when the line is back. */
  readonly unconfirmed = signal<readonly UnconfirmedCaption[]>([]);

  readonly handlers: ServerHandlers<'captions'> = {
    captions: ({ writer, lines }) => {
      this.writer.set(writer);
      this.typing.set('');
      for (const line of lines) this.put(line);
    },
    caption: ({ line }) => {
      this.typing.set('');
      this.put(line);
    },
    'caption.typing': ({ text }) => this.typing.set(text),
  };

  constructor(private readonly send: Send) {}

  begin(): void {
    this.typing.set('');
    this.sendAgain();
  }

  clear(): void {
    this.writer.set(null);
    this.lines.set([]);
    this.typing.set('');
    this.unconfirmed.set([]);
  }

  leave(): void {
    // It has nothing of the machine.
  }

  /** Names who types them. */
  setWriter(who: Id | null): void {
    this.send({ kind: 'captions.writer', who });
  }

  /** A line is done; one that is `corrected` takes its place. It is shown when it is kept. */
  write(text: string, corrected: Id | null = null): void {
    const line = { id: corrected ?? newId(), text };
    this.unconfirmed.update((all) => [...all.filter(({ id }) => id !== line.id), line]);
    this.send({ kind: 'caption', ...line });
  }

  /** Tells how far a line is typed. */
  tell(text: string): void {
    this.send({ kind: 'caption.typing', text });
  }

  sendAgain(): void {
    for (const line of this.unconfirmed()) this.send({ kind: 'caption', ...line });
  }

  /** Leaves what wasn't taken. */
  drop(): void {
    this.unconfirmed.set([]);
  }

  private put(line: Caption): void {
    this.unconfirmed.update((all) => all.filter(({ id }) => id !== line.id));
    this.lines.update((all) =>
      all.some(({ id }) => id === line.id)
        ? all.map((one) => (one.id === line.id ? line : one))
        : [...all, line].sort((a, b) => a.from - b.from).slice(-MOST),
    );
  }
}
