import type { AddressedKindOf, ClientKindOf, ClientMessageOf, FeatureName } from '@cuaderno/core';
import type { LiveLesson } from '../../lessons/live-lesson.js';
import type { LiveConnection } from '../connection.js';

/**
 * One for each kind of message of a feature: none can be left out. A message for one window comes with that window,
 * which is in the lesson of the sender.
 */
export type ClientHandlers<Name extends FeatureName> = {
  readonly [Kind in ClientKindOf<Name>]: (
    window: LiveConnection,
    message: Extract<ClientMessageOf<Name>, { kind: Kind }>,
    ...addressee: Kind extends AddressedKindOf<Name> ? [LiveConnection] : []
  ) => void;
};

/**
 * A part of a live lesson, on the server. What may be said and by whom stands in its twin in `packages/core/src/features/`;
 * here is what is done with it, and what a window that comes late or again is told what holds just now. What it leaves
 * on disk is said beside it, in a `KeptPart`. The connection looks up, and knows none of them.
 */
export interface LiveFeature<Name extends FeatureName> {
  /** Throws nothing but what is wrong with the server: that ends the window, and nothing else. */
  readonly handlers: ClientHandlers<Name>;
  sendSnapshot(window: LiveConnection): void;
  /** A window has gone out of its lesson, and isn't one of those that are told of it any more. */
  leave(window: LiveConnection): void;
  /** Takes up what held in an open lesson before the server was stopped. */
  restore(lesson: LiveLesson): Promise<void> | void;
}
