import { signal } from '@angular/core';
import type { Signal } from '@angular/core';
import { EMPTY, fromEvent } from 'rxjs';
import type { Observable } from 'rxjs';
import type { SoundDevice } from './sound-choice';

/** Some browsers list what the machine itself takes once more, under these names. */
const ALIASES = new Set(['default', 'communications']);

/** What there is on a machine to speak into and to hear with. */
export interface SoundDevices {
  readonly microphones: readonly SoundDevice[];
  readonly loudspeakers: readonly SoundDevice[];
}

/**
 * What there is. Until the microphone was allowed, browsers tell neither ids nor names: what is here then has empty ones,
 * and one of a kind stands for all of that kind (W3C Media Capture and Streams, section 9.2).
 */
export async function soundDevices(): Promise<SoundDevices> {
  const all = (await navigator.mediaDevices?.enumerateDevices().catch(() => [])) ?? [];
  const of = (kind: MediaDeviceKind): SoundDevice[] =>
    all
      .filter((one) => one.kind === kind && !ALIASES.has(one.deviceId))
      .map(({ deviceId, label }) => ({ id: deviceId, name: label }));
  return { microphones: of('audioinput'), loudspeakers: of('audiooutput') };
}

/** Something was plugged in or pulled out. */
export function devicesChanged(): Observable<unknown> {
  // A page that isn't secure is told of none.
  return navigator.mediaDevices ? fromEvent(navigator.mediaDevices, 'devicechange') : EMPTY;
}

/** What is known so far, for a screen to show. */
export class KnownDevices {
  private readonly known = signal<SoundDevices>({ microphones: [], loudspeakers: [] });
  readonly now: Signal<SoundDevices> = this.known;

  /** @returns the microphones that weren't there before */
  async look(): Promise<readonly SoundDevice[]> {
    const before = new Set(this.known().microphones.map(({ id }) => id));
    const now = await soundDevices();
    this.known.set(now);
    return now.microphones.filter(({ id }) => !before.has(id));
  }
}
