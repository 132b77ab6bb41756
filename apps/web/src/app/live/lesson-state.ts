import { signal } from '@angular/core';
import type { ServerMessage } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import { lessonFeatures } from './features/register';
import type { Send } from './features/feature';
import type { LessonFeatures } from './features/register';
import { StandingWishes } from './standing-wishes';

/** The lesson on a board, as this window knows it. What there is to know is its features'; here it is looked up. */
export class LessonState {
  readonly lesson = signal<{ id: Id; openedAt: number } | null>(null);
  /** How far the server’s clock is ahead of this machine’s, in ms: one of them may be wrong by a day. */
  readonly ahead = signal(0);
  readonly features: LessonFeatures;
  private readonly wishes: StandingWishes;
  private readonly handlers: ReadonlyMap<string, (message: never) => void>;

  constructor(send: Send) {
    this.wishes = new StandingWishes(send);
    this.features = lessonFeatures(send, (message, isSo) => this.wishes.say(message, isSo));
    this.handlers = new Map(
      Object.values(this.features).flatMap(({ handlers }) => Object.entries(handlers)),
    );
  }

  begin(lesson: { id: Id; openedAt: number } | null): void {
    this.lesson.set(lesson);
    for (const feature of Object.values(this.features)) feature.begin(lesson?.id ?? null);
    if (lesson) this.wishes.begin();
    else this.clear();
  }

  /** The line is away; what is known of the lesson stays in sight. */
  lost(): void {
    this.wishes.lost();
  }

  over(): void {
    this.lesson.set(null);
    this.clear();
  }

  /** This window is out of the lesson, or closed. */
  leave(): void {
    for (const feature of Object.values(this.features)) feature.leave();
  }

  /** What is of no feature is left to the others that it is for. */
  handle(message: ServerMessage): void {
    this.handlers.get(message.kind)?.(message as never);
  }

  private clear(): void {
    this.wishes.clear();
    for (const feature of Object.values(this.features)) feature.clear();
  }
}
