/** Why a connection ends: codes in the range that RFC 6455 (7.4.2) leaves to applications. */
export const CLOSE = {
  /** Something went wrong here; who comes back finds it as it is on disk. */
  again: 4000,
  notIn: 4401,
  /** At the door: not let in, or sent out. */
  door: 4403,
  /** Nothing was said in time. */
  silent: 4408,
  over: 4410,
  flood: 4429,
  old: 4426,
} as const;

export type CloseCode = (typeof CLOSE)[keyof typeof CLOSE];
