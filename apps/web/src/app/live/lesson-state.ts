import { signal } from '@angular/core';
import type { ServerMessage } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import { lessonFeatures } from './features/register';
import type { Send } from './features/feature';
import type { LessonFeatures } from './features/register';

/** The lesson on a board, as this window knows it. What there is to know is its features'; here it is looked up. */
export class LessonState {
  readonly lesson = signal<{ id: Id; openedAt: number } | null>(null);
  /** How far the server’s clock is ahead of this machine’s, in ms: one of them may be wrong by a day. */
  readonly ahead = signal(0);
  readonly features: LessonFeatures;
  private readonly handlers: ReadonlyMap<string, (message: never) => void>;

  constructor(send: Send) {
    this.features = lessonFeatures(send);
    this.handlers = new Map(
      Object.values(this.features).flatMap(({ handlers }) => Object.entries(handlers)),
    );
  }

  begin(lesson: { id: Id; openedAt: number } | null): void {
    this.lesson.set(lesson);
    for (const feature of Object.values(this.features)) feature.begin();
    if (!lesson) this.clear();
  }

  over(): void {
    this.lesson.set(null);
    this.clear();
  }

  /** What is of no feature is left to the others that it is for. */
  handle(message: ServerMessage): void {
    this.handlers.get(message.kind)?.(message as never);
  }

  private clear(): void {
    for (const feature of Object.values(this.features)) feature.clear();
  }
}
