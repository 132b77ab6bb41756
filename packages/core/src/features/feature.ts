import type * as z from 'zod';
import type { Role } from '../permissions/index.js';
import type { MessageLimits } from './limits.js';

/** One kind of message that a window may send. */
export interface ClientKind {
  /** The least that one must be to send it; from anybody else it is refused before the feature hears of it. */
  readonly from: Role;
  /**
   * Where it goes to one window: its id is `to` in the message. The server hands it on to no other, and to none that isn't
   * in the sender's lesson this moment.
   */
  readonly to?: 'window';
  /** Windows send it without anybody's doing: where the one that it is for has just gone, nobody is told of that. */
  readonly byItself?: true;
  /** What it may cost, looked at before it is built. */
  readonly limits: MessageLimits;
  /** What is in it besides its kind; nothing else is taken. */
  readonly fields: z.ZodRawShape;
}

/**
 * What is known of a live feature wherever it is looked at from: what its windows and the server say to one another, and
 * what it leaves in a lesson's record. Its twins, `apps/server/src/live/features/` and `apps/web/src/app/live/features/`,
 * have to do with each kind that is named here; the compiler asks them for it.
 */
export interface LiveFeatureSpec {
  /** What windows send, by kind. */
  readonly clientMessages: Readonly<Record<string, ClientKind>>;
  /** What the server sends of it, by kind: what is in such a message besides its kind. */
  readonly serverMessages: Readonly<Record<string, z.ZodRawShape>>;
  /** What of it lies in a record, by name, in order of time; `null` where nothing lasts. */
  readonly record: Readonly<Record<string, z.ZodType>> | null;
  /** Names of those parts of it that are words somebody said: records are found by them. */
  readonly said: readonly string[];
}

/** Says of a feature what every feature has to say. */
export function liveFeature<const Spec extends LiveFeatureSpec>(spec: Spec): Spec {
  return spec;
}
