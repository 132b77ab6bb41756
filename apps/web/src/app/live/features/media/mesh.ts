import { signal } from '@angular/core';
import type { ClientMessage, IceServer } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import type { MediaPath, PeerWord } from './media-path';
import { Peer } from './peer';

/** Every window to every other, straight: the best there is for a few, as nothing is between them. */
export class Mesh implements MediaPath {
  readonly received = signal<ReadonlyMap<Id, MediaStreamTrack>>(new Map());
  private readonly peers = new Map<Id, Peer>();
  private others: ReadonlySet<Id> = new Set();
  private voice: MediaStreamTrack | null = null;

  /** @param window this window's own id */
  constructor(
    private readonly window: Id,
    private readonly servers: readonly IceServer[],
    private readonly send: (message: ClientMessage) => void,
  ) {}

  connect(windows: readonly Id[]): void {
    this.others = new Set(windows);
    for (const id of [...this.peers.keys()]) if (!this.others.has(id)) this.drop(id);
    this.reach();
  }

  sendVoice(track: MediaStreamTrack | null): void {
    this.voice = track;
    for (const peer of this.peers.values()) peer.sendVoice(track);
    this.reach();
  }

  hear(from: Id, word: PeerWord): void {
    // Whoever isn't in the lesson is not let in here either.
    if (this.others.has(from)) void this.peer(from).hear(word);
  }

  levelOf(window: Id): number {
    return this.peers.get(window)?.level ?? 0;
  }

  close(): void {
    this.voice = null;
    this.connect([]);
  }

  /** Who has something to say goes to all; between two who are silent there needn't be anything. */
  private reach(): void {
    if (this.voice) for (const id of this.others) this.peer(id);
  }

  private peer(id: Id): Peer {
    const known = this.peers.get(id);
    if (known) return known;
    const peer = new Peer({
      servers: this.servers,
      polite: this.window < id,
      say: (word) => this.send({ ...word, to: id }),
      heard: (track) => this.received.update((all) => new Map(all).set(id, track)),
    });
    this.peers.set(id, peer);
    if (this.voice) peer.sendVoice(this.voice);
    return peer;
  }

  private drop(id: Id): void {
    this.peers.get(id)?.close();
    this.peers.delete(id);
    this.received.update((all) => new Map([...all].filter(([window]) => window !== id)));
  }
}
