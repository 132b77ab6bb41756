import { isAddressed, isAtLeast, isByItself, senderOf } from '@cuaderno/core';
import type { ClientMessage, Id } from '@cuaderno/core';
import type { Database } from '../../database/index.js';
import type { LiveLesson } from '../../lessons/live-lesson.js';
import type { LiveConnection } from '../connection.js';
import type { LiveService } from '../service.js';
import type { LiveFeature } from './feature.js';
import { FEATURES } from './register.js';
import type { HandledFeature } from './register.js';

type LessonMessage = Exclude<ClientMessage, { kind: 'hello' | 'ping' }>;
type AnyHandler = (
  window: LiveConnection,
  message: never,
  ...addressee: [LiveConnection] | []
) => void;

/** Every feature at work; the connection looks up here who is to have a message. */
export class LiveFeatures {
  readonly of: { readonly [Name in HandledFeature]: ReturnType<(typeof FEATURES)[Name]['live']> };
  private readonly all: readonly LiveFeature<HandledFeature>[];
  private readonly handlers: ReadonlyMap<string, AnyHandler>;

  constructor(
    private readonly service: LiveService,
    db: Database,
  ) {
    this.of = Object.fromEntries(
      Object.entries(FEATURES).map(([name, { live }]) => [name, live(service, db)]),
    ) as typeof this.of;
    this.all = Object.values(this.of);
    this.handlers = new Map(
      this.all.flatMap(({ handlers }) => Object.entries(handlers) as [string, AnyHandler][]),
    );
  }

  handle(window: LiveConnection, message: LessonMessage): void {
    const least = senderOf(message.kind);
    if (!isAtLeast(window.role, least))
      return window.refuse(least === 'student' ? 'watches-only' : 'tutor-only');
    const handler = this.handlers.get(message.kind)!;
    if (!isAddressed(message.kind)) return handler(window, message as never);
    const addressee = this.service.addressee(window, (message as { to: Id }).to);
    // Who isn't there and who is in another lesson are one answer: nothing can be found out by asking.
    if (!addressee) return isByItself(message.kind) ? undefined : window.refuse('window-gone');
    handler(window, message as never, addressee);
  }

  /** Takes up an open lesson after the server was stopped. */
  async restore(lesson: LiveLesson): Promise<void> {
    for (const feature of this.all) await feature.restore(lesson);
  }

  /** All that holds in the lesson, for a window that has come. */
  sendSnapshot(window: LiveConnection): void {
    for (const feature of this.all) feature.sendSnapshot(window);
  }

  leave(window: LiveConnection): void {
    for (const feature of this.all) feature.leave(window);
  }
}
