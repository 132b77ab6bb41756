import { countWhile } from './halving.js';

/** A stretch of time, in ms since 1970. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
}

/** How long nothing must happen before that is skipped, and how much of it is left, in ms. */
export const IDLE = 2500;
export const BREATH = 700;

/** A part of the lesson that is played evenly. Times of the lesson in ms since 1970, of the replay in ms. */
interface Part {
  readonly lesson: number;
  readonly lessonLength: number;
  readonly play: number;
  readonly playLength: number;
}

/**
 * Which moment of a lesson is seen at which moment of its replay. Time in which nothing happens is passed over
 * in a breath; everything else takes as long as it took.
 */
export class Pace {
  private constructor(private readonly parts: readonly Part[]) {}

  /** Every moment as long as it was. */
  static even(whole: Stretch): Pace {
    const length = Math.max(0, whole.to - whole.from);
    return new Pace([{ lesson: whole.from, lessonLength: length, play: 0, playLength: length }]);
  }

  /** @param happening when something happened, in any order; what lies outside of the whole is left out */
  static skippingIdle(whole: Stretch, happening: readonly Stretch[]): Pace {
    const parts: Part[] = [];
    let [lesson, play] = [whole.from, 0];
    const add = (until: number, most = Infinity): void => {
      const lessonLength = until - lesson;
      if (lessonLength <= 0) return;
      const playLength = Math.min(lessonLength, most);
      parts.push({ lesson, lessonLength, play, playLength });
      lesson = until;
      play += playLength;
    };
    for (const { from, to } of [...happening].sort((a, b) => a.from - b.from)) {
      const begins = Math.min(from, whole.to);
      if (begins - lesson > IDLE) add(begins, BREATH);
      add(Math.min(to, whole.to));
    }
    add(whole.to, whole.to - lesson > IDLE ? BREATH : Infinity);
    return new Pace(parts);
  }

  /** How long the replay is, in ms. */
  get length(): number {
    const last = this.parts.at(-1);
    return last ? last.play + last.playLength : 0;
  }

  /** The moment of the lesson that is seen then. What lies outside of the replay is its end. */
  lessonAt(play: number): number {
    const part = this.partAt((one) => one.play <= play);
    if (!part) return this.parts[0]?.lesson ?? 0;
    const through = part.playLength === 0 ? 1 : (play - part.play) / part.playLength;
    return part.lesson + Math.min(1, through) * part.lessonLength;
  }

  /** When in the replay this moment of the lesson is seen. */
  playAt(lesson: number): number {
    const part = this.partAt((one) => one.lesson <= lesson);
    if (!part) return 0;
    const through = part.lessonLength === 0 ? 1 : (lesson - part.lesson) / part.lessonLength;
    return part.play + Math.min(1, through) * part.playLength;
  }

  /** The last part that has begun. */
  private partAt(begun: (part: Part) => boolean): Part | undefined {
    return this.parts[countWhile(this.parts, begun) - 1];
  }
}
