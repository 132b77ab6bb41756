import type { Actor, Id, Viewer } from '@cuaderno/core';

/** A window that has a board open, as the host of that board sees it. */
export interface Member {
  /** Who looks through it: what it is shown goes by this. */
  readonly viewer: Viewer;
  /** Who it is and what they may do, at this moment. */
  actor(): Actor;
  /** Whether so many bytes more of theirs may be kept: see `LiveLesson.mayKeep`. */
  mayKeep(bytes: number): boolean;
  keeps(bytes: number): void;
  /** The server was busy with what they offered, for so many ms. */
  worked(ms: number): void;
  /** What stood for the stroke under way that has become this operation, if one has. */
  strokeThatIs(op: Id): number | undefined;
  /** A message that must arrive. */
  send(bytes: Uint8Array): void;
  /** A message that may be dropped where the line is slow. */
  sendLive(bytes: Uint8Array): void;
  /** Ends the connection so that the browser comes back and catches up. */
  drop(): void;
}
