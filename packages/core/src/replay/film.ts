import type { ReplayEvent } from './events.js';
import type { Pace } from './pace.js';
import type { Turn } from './page-in-view.js';

/** A frame of a film: what is seen from one moment until the next. All in ms, `time` since 1970. */
export interface FilmFrame {
  /** When it comes, from the beginning of the film. */
  readonly at: number;
  readonly length: number;
  /** The moment of the lesson that it shows. */
  readonly time: number;
}

export interface FilmWish {
  /** How many times as fast as the replay. */
  readonly speed: number;
  /** Frames in a second while something happens. */
  readonly rate: number;
  /** How long a frame stands at most though nothing happens, in ms: so far one can step. */
  readonly still: number;
}

/** How long a film of this replay is, in ms. */
export function filmLength(pace: Pace, { speed }: Pick<FilmWish, 'speed'>): number {
  return pace.length / speed;
}

/**
 * The frames of a film of a replay. There are only as many as something is seen to happen: while nobody writes, one
 * stands. The last one shows the end of the lesson, and stands as long as one may.
 */
export function filmFrames(
  pace: Pace,
  events: readonly ReplayEvent[],
  turns: readonly Turn[],
  wish: FilmWish,
): FilmFrame[] {
  const { speed, rate, still } = wish;
  const length = filmLength(pace, wish);
  const slots = Math.floor((length * rate) / 1000);
  const changes = new Uint8Array(slots + 1);
  /** The first slot that shows what is so from this moment of the lesson on. */
  const slotOf = (time: number): number =>
    Math.min(slots, Math.ceil(((pace.playAt(time) / speed) * rate) / 1000));
  for (const { from, to } of events) changes.fill(1, slotOf(from), slotOf(to) + 1);
  for (const { at } of turns) changes[slotOf(at)] = 1;
  changes[0] = 1;
  const apart = Math.max(1, Math.floor((still * rate) / 1000));
  const shown: number[] = [];
  for (let slot = 0; slot <= slots; slot++)
    if (changes[slot] || slot - (shown.at(-1) ?? 0) >= apart) shown.push(slot);
  const starts = shown.map((slot) => (slot * 1000) / rate);
  const times = starts.at(-1)! < length ? [...starts, length] : starts;
  return times.map((at, i) => ({
    at,
    length: (times[i + 1] ?? at + still) - at,
    time: pace.lessonAt(at * speed),
  }));
}
