import { MAX_PEAKS } from '@cuaderno/core/kinds';

/** Sounds longer than this are not read for their peaks, in seconds: that takes memory. */
const MAX_READ = 20 * 60;
/** Rate at which a sound is read for its peaks, in samples a second. */
const RATE = 8000;
/** Width of a film's picture at most, in pixels. */
const MAX_POSTER = 1280;
/** Longest that is waited for a film's picture, in ms. */
const PATIENCE = 15_000;

/** A picture of a film, from a moment after its start; `null` where this browser can't play it. */
export async function posterOf(film: Blob): Promise<Blob | null> {
  const video = document.createElement('video');
  const url = URL.createObjectURL(film);
  const signal = AbortSignal.timeout(PATIENCE);
  const when = (event: string): Promise<void> =>
    new Promise((resolve, reject) => {
      video.addEventListener(event, () => resolve(), { once: true });
      video.addEventListener('error', () => reject(new Error('not played')), { once: true });
      signal.addEventListener('abort', () => reject(new Error('too slow')), { once: true });
    });
  try {
    video.muted = true;
    video.preload = 'auto';
    const ready = when('loadeddata');
    video.src = url;
    await ready;
    const sought = when('seeked');
    // Films often begin in the dark.
    video.currentTime = Math.min(1, (Number.isFinite(video.duration) ? video.duration : 0) / 10);
    await sought;
    const scale = Math.min(1, MAX_POSTER / video.videoWidth);
    const canvas = document.createElement('canvas');
    canvas.width = Math.max(1, Math.round(video.videoWidth * scale));
    canvas.height = Math.max(1, Math.round(video.videoHeight * scale));
    canvas.getContext('2d')!.drawImage(video, 0, 0, canvas.width, canvas.height);
    return await new Promise((done) => canvas.toBlob(done, 'image/jpeg', 0.85));
  } catch {
    return null;
  } finally {
    video.removeAttribute('src');
    video.load();
    URL.revokeObjectURL(url);
  }
}

/**
 * How loud a sound is along its length, the loudest being 1; `null` where this browser can't tell.
 * @param length in seconds
 */
export async function peaksOf(sound: Blob, length: number): Promise<number[] | null> {
  if (length > MAX_READ) return null;
  try {
    const context = new OfflineAudioContext(1, 1, RATE);
    const buffer = await context.decodeAudioData(await sound.arrayBuffer());
    return peaks(buffer.getChannelData(0));
  } catch {
    return null;
  }
}

/** Mean loudness (root of the mean square) of equal parts, the loudest being 1. */
export function peaks(samples: Float32Array, count = MAX_PEAKS): number[] {
  const among = Math.min(count, samples.length);
  const parts = Array.from({ length: among }, (_, i) => {
    const from = Math.floor((i * samples.length) / among);
    const to = Math.floor(((i + 1) * samples.length) / among);
    let sum = 0;
    for (let at = from; at < to; at++) sum += samples[at]! ** 2;
    return Math.sqrt(sum / (to - from));
  });
  const most = Math.max(...parts, 1e-9);
  return parts.map((part) => Math.round((part / most) * 100) / 100);
}
