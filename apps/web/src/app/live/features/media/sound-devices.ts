import { EMPTY, fromEvent } from 'rxjs';
import type { Observable } from 'rxjs';
import type { SoundDevice } from './sound-choice';

/** Some browsers list what the machine itself takes once more, under these names. */
const ALIASES = new Set(['default', 'communications']);

/**
 * What there is to speak into. Until the microphone was allowed, browsers tell neither ids nor names: one with an empty id
 * stands for all then (W3C Media Capture and Streams, section 9.2).
 */
export async function microphones(): Promise<readonly SoundDevice[]> {
  const all = (await navigator.mediaDevices?.enumerateDevices().catch(() => [])) ?? [];
  return all
    .filter(({ kind, deviceId }) => kind === 'audioinput' && !ALIASES.has(deviceId))
    .map(({ deviceId, label }) => ({ id: deviceId, name: label }));
}

/** Something was plugged in or pulled out. */
export function devicesChanged(): Observable<unknown> {
  // A page that isn't secure is told of none.
  return navigator.mediaDevices ? fromEvent(navigator.mediaDevices, 'devicechange') : EMPTY;
}
