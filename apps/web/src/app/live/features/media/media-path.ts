import type { Signal } from '@angular/core';
import type { IceCandidate, SessionDescription } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';

/** Something that one window has to tell another before they hear one another. */
export type PeerWord =
  | { readonly kind: 'media.describe'; readonly description: SessionDescription }
  | { readonly kind: 'media.candidate'; readonly candidate: IceCandidate };

/** How voices come from window to window. */
export interface MediaPath {
  /** The voice of each window that sends one; what it sends may be silence. */
  readonly received: Signal<ReadonlyMap<Id, MediaStreamTrack>>;
  /** Whose window is there besides this one, from now on: nothing goes to, or comes from, any other. */
  connect(windows: readonly Id[]): void;
  /** What is sent of this window's own; `null` for nothing. */
  sendVoice(track: MediaStreamTrack | null): void;
  /** What another window has told this one. */
  hear(from: Id, word: PeerWord): void;
  /** How loud a window is this moment, from 0 to 1 (RFC 6464 has it in steps of 1 dB). */
  levelOf(window: Id): number;
  /** Nothing is sent and nothing comes any more. */
  close(): void;
}
