import { signal } from '@angular/core';
import type { Id } from '@cuaderno/core/id';

/** Plays voices, each of its own window. */
export class VoicePlayer {
  /** Whether the browser wants a touch before it plays anything. */
  readonly isBlocked = signal(false);
  private readonly playing = new Map<Id, HTMLAudioElement>();

  /**
   * Plays these, and nothing else.
   * @param heard of which windows anything is to be heard: what others send is silent here
   */
  play(voices: ReadonlyMap<Id, MediaStreamTrack>, heard: ReadonlySet<Id>): void {
    for (const [id, audio] of [...this.playing]) if (!voices.has(id)) this.stop(id, audio);
    for (const [id, track] of voices) {
      const audio = this.playing.get(id) ?? new Audio();
      this.playing.set(id, audio);
      audio.muted = !heard.has(id);
      const stream = audio.srcObject as MediaStream | null;
      if (stream?.getTracks()[0] === track) continue;
      audio.srcObject = new MediaStream([track]);
      void this.start(audio);
    }
  }

  /** After a touch. */
  async startAll(): Promise<void> {
    this.isBlocked.set(false);
    await Promise.all([...this.playing.values()].map((audio) => this.start(audio)));
  }

  private async start(audio: HTMLAudioElement): Promise<void> {
    try {
      await audio.play();
    } catch (error) {
      if ((error as DOMException).name === 'NotAllowedError') this.isBlocked.set(true);
    }
  }

  private stop(id: Id, audio: HTMLAudioElement): void {
    audio.pause();
    audio.srcObject = null;
    this.playing.delete(id);
  }
}
