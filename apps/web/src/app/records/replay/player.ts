import { computed, signal } from '@angular/core';
import { Pace } from '@cuaderno/core/replay';
import type { Replay, Stretch } from '@cuaderno/core/replay';

/** How many times as fast as it was. */
export const SPEEDS = [0.5, 1, 2, 4, 8, 16] as const;
export type Speed = (typeof SPEEDS)[number];

/** Frames of the window, or of a test. */
export interface Frames {
  next(draw: (now: number) => void): number;
  cancel(frame: number): void;
}

const WINDOW: Frames = {
  next: (draw) => requestAnimationFrame(draw),
  cancel: (frame) => cancelAnimationFrame(frame),
};

/** Plays a lesson: at which moment it stands, how fast it goes, and what is seen then. */
export class Player {
  /** In ms of the replay. */
  readonly at = signal(0);
  readonly isPlaying = signal(false);
  readonly speed = signal<Speed>(1);
  readonly skipsIdle = signal(true);
  readonly pace = computed(() =>
    this.skipsIdle() ? Pace.skippingIdle(this.whole, this.happening) : Pace.even(this.whole),
  );
  /** How long the replay is, in ms. */
  readonly length = computed(() => this.pace().length);
  /** The moment of the lesson that is seen, in ms since 1970. */
  readonly time = computed(() => this.pace().lessonAt(this.at()));
  readonly moment = computed(() => this.replay.at(this.time()));
  private frame = 0;
  private drawnAt: number | null = null;

  /**
   * @param whole from the opening of the lesson to its close
   * @param happening when something happened, so that it isn't passed over
   */
  constructor(
    private readonly replay: Replay,
    private readonly whole: Stretch,
    private readonly happening: readonly Stretch[],
    private readonly frames: Frames = WINDOW,
  ) {}

  /** Goes on; at the end, from the beginning. */
  play(): void {
    if (this.isPlaying() || this.length() === 0) return;
    if (this.at() >= this.length()) this.at.set(0);
    this.isPlaying.set(true);
    this.drawnAt = null;
    this.frame = this.frames.next((now) => this.goOn(now));
  }

  pause(): void {
    this.frames.cancel(this.frame);
    this.isPlaying.set(false);
  }

  toggle(): void {
    if (this.isPlaying()) this.pause();
    else this.play();
  }

  /** @param at in ms of the replay */
  goTo(at: number): void {
    this.at.set(Math.max(0, Math.min(this.length(), at)));
  }

  /** @param time in ms since 1970 */
  goToTime(time: number): void {
    this.goTo(this.pace().playAt(time));
  }

  /** Stays at the moment of the lesson that is seen. */
  setSkipsIdle(skips: boolean): void {
    const time = this.time();
    this.skipsIdle.set(skips);
    this.goToTime(time);
  }

  private goOn(now: number): void {
    // A window that was behind others gets no frames: it goes on from where it stood.
    const passed = this.drawnAt === null ? 0 : Math.min(250, now - this.drawnAt);
    this.drawnAt = now;
    this.goTo(this.at() + passed * this.speed());
    if (this.at() >= this.length()) this.isPlaying.set(false);
    else this.frame = this.frames.next((next) => this.goOn(next));
  }
}
