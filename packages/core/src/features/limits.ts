import type { Role } from '../permissions/index.js';

/** What one value that came in may cost at most: looked at before any of it is built. */
export interface ReadLimits {
  readonly bytes: number;
  /** Values in it, keys of maps counted as well. */
  readonly values: number;
  /** Bytes of all its texts: letters take longer to build than anything else. */
  readonly text: number;
  /** Lists and maps in one another. */
  readonly depth: number;
}

/** What a kind of message may cost; where it depends on who sends it, said of each. */
export type MessageLimits = ReadLimits | Readonly<Record<Role, ReadLimits>>;

/** Of a message that says one thing. */
export const SMALL: ReadLimits = { bytes: 600, values: 48, text: 400, depth: 4 };

/** Bytes in one message at most. */
export const MAX_MESSAGE_BYTES = 1_000_000;
