import { senderOf } from '@cuaderno/core';
import type { ClientMessage } from '@cuaderno/core';
import type { Database } from '../../database/index.js';
import type { LiveLesson } from '../../lessons/live-lesson.js';
import type { LiveConnection } from '../connection.js';
import type { LiveService } from '../service.js';
import type { LiveFeature } from './feature.js';
import { FEATURES } from './register.js';
import type { HandledFeature } from './register.js';

type LessonMessage = Exclude<ClientMessage, { kind: 'hello' | 'ping' }>;
type AnyHandler = (window: LiveConnection, message: never) => void;

/** Every feature at work; the connection looks up here who is to have a message. */
export class LiveFeatures {
  readonly of: { readonly [Name in HandledFeature]: ReturnType<(typeof FEATURES)[Name]['live']> };
  private readonly all: readonly LiveFeature<HandledFeature>[];
  private readonly handlers: ReadonlyMap<string, AnyHandler>;

  constructor(service: LiveService, db: Database) {
    this.of = Object.fromEntries(
      Object.entries(FEATURES).map(([name, { live }]) => [name, live(service, db)]),
    ) as typeof this.of;
    this.all = Object.values(this.of);
    this.handlers = new Map(
      this.all.flatMap(({ handlers }) => Object.entries(handlers) as [string, AnyHandler][]),
    );
  }

  handle(window: LiveConnection, message: LessonMessage): void {
    if (senderOf(message.kind) === 'tutor' && window.role !== 'tutor')
      return window.refuse('tutor-only');
    this.handlers.get(message.kind)!(window, message as never);
  }

  /** Takes up an open lesson after the server was stopped. */
  async restore(lesson: LiveLesson): Promise<void> {
    for (const feature of this.all) await feature.restore(lesson);
  }

  /** All that holds in the lesson, for a window that has come. */
  sendSnapshot(window: LiveConnection): void {
    for (const feature of this.all) feature.sendSnapshot(window);
  }
}
