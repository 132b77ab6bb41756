import type { Actor, Id, Role } from '@cuaderno/core';

/** A connected window, as a board's room sees it. */
export interface Member {
  readonly person: Id;
  /** What it is shown goes by this. */
  readonly role: Role;
  /** Who it is and what they may do, at this moment. */
  actor(): Actor;
  /** A message that must arrive. */
  send(bytes: Uint8Array): void;
  /** A message that may be dropped where the line is slow. */
  sendLive(bytes: Uint8Array): void;
  /** Ends the connection so that the browser comes back and catches up. */
  drop(): void;
}
