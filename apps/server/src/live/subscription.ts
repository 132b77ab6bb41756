import type { Actor, Id, Viewer } from '@cuaderno/core';
import type { LiveConnection } from './connection.js';
import type { Member } from './member.js';

/** A board that a window has open: what the board's host tells of it goes to that window, and who it is says the window. */
export class Subscription implements Member {
  constructor(
    readonly board: Id,
    private readonly window: LiveConnection,
  ) {}

  get viewer(): Viewer {
    return this.window.viewer;
  }

  actor(): Actor {
    return this.window.actor();
  }

  mayKeep(bytes: number): boolean {
    return this.window.mayKeep(bytes);
  }

  keeps(bytes: number): void {
    this.window.keeps(bytes);
  }

  worked(ms: number): void {
    this.window.worked(ms);
  }

  strokeThatIs(op: Id): number | undefined {
    return this.window.stroke.thatIs(op);
  }

  send(bytes: Uint8Array): void {
    this.window.send(bytes);
  }

  sendLive(bytes: Uint8Array): void {
    this.window.sendLive(bytes);
  }

  /** The window comes back, and opens all its boards anew. */
  drop(): void {
    this.window.drop();
  }
}
