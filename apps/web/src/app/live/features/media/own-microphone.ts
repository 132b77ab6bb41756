import { signal } from '@angular/core';
import type { Microphone } from '@cuaderno/core/features';
import type { Subscription } from 'rxjs';
import { openMicrophone } from './microphone-input';
import type { MicrophoneFault } from './microphone-input';
import { chooseMicrophone, chosenMicrophone } from './sound-choice';
import type { SoundDevice } from './sound-choice';
import { devicesChanged, microphones } from './sound-devices';
import { VoiceLevel } from './voice-level';

/** What came of the microphone that was spoken into: it is told once, and one speaks on. */
export interface MicrophoneChange {
  /** Whether the one before is gone; otherwise a known one has come. */
  readonly isGone: boolean;
  /** The one that is spoken into now. */
  readonly to: string;
}

/**
 * The microphone of this window, also as it is pulled out and another plugged in: what was used here before is taken by
 * itself, and what is new is asked about.
 */
export class OwnMicrophone {
  readonly state = signal<Microphone>('off');
  /** Whether the browser is being asked for it. */
  readonly isOpening = signal(false);
  /** Why there is no voice of this window. */
  readonly fault = signal<MicrophoneFault | null>(null);
  /** One that was plugged in meanwhile, and was never used here. */
  readonly plugged = signal<SoundDevice | null>(null);
  readonly switched = signal<MicrophoneChange | null>(null);
  track: MediaStreamTrack | null = null;

  /** Ids of those that there are, as far as it was looked. */
  private known: ReadonlySet<string> = new Set();
  private level: VoiceLevel | null = null;
  private watching: Subscription | null = null;
  /** What it is to be when one is plugged in, where there is none just now. */
  private wanted: 'muted' | 'on' | null = null;
  /** Counts what was let go: what the browser gives after that is too late. */
  private round = 0;

  /** @param changed called when something else is heard of it from now on: another state, another track, or none */
  constructor(private readonly changed: () => void) {}

  /** How loud one's own voice is this moment, from 0 to 1. */
  get loudness(): number {
    return this.level?.now ?? 0;
  }

  set(state: Microphone): void {
    this.state.set(state);
    if (this.track) this.track.enabled = state === 'on';
    this.changed();
  }

  /**
   * On, or muted, from now on; the browser is asked if it has to be. What goes wrong is in `fault`.
   * @param device `null` for the one that was chosen here before, or what the machine itself takes
   */
  async open(as: 'muted' | 'on', device: string | null = null): Promise<void> {
    if (this.track && !device) return this.set(as);
    if (this.isOpening()) return;
    const round = this.round;
    this.isOpening.set(true);
    this.fault.set(null);
    this.wanted = null;
    this.watching ??= devicesChanged().subscribe(() => void this.lookAgain());
    try {
      const opened = await openMicrophone(device ?? chosenMicrophone()?.id ?? null);
      if (round !== this.round) return typeof opened === 'string' ? undefined : opened.stop();
      if (typeof opened === 'string') {
        this.fault.set(opened);
        if (opened === 'missing') this.wanted = as;
        return;
      }
      this.take(opened);
      this.set(as);
      // What is here already isn't new.
      await this.cameSince();
    } finally {
      this.isOpening.set(false);
    }
  }

  /** Speaks into that one from now on, here and next time. */
  async use(device: SoundDevice): Promise<void> {
    this.plugged.set(null);
    chooseMicrophone(device);
    if (this.track) await this.open(this.state() === 'on' ? 'on' : 'muted', device.id);
  }

  /** The machine has it back. */
  release(): void {
    this.round++;
    this.watching?.unsubscribe();
    this.watching = null;
    this.wanted = null;
    this.letGo();
    this.state.set('off');
    for (const told of [this.fault, this.plugged, this.switched]) told.set(null);
  }

  private take(track: MediaStreamTrack): void {
    this.letGo();
    this.track = track;
    this.level = new VoiceLevel(track);
    // Pulled out, or no longer allowed.
    track.onended = () => void this.lost();
  }

  private letGo(): void {
    if (this.track) this.track.onended = null;
    this.track?.stop();
    this.track = null;
    this.level?.close();
    this.level = null;
  }

  /** Another that is there takes its place; where there is none, it is waited for. */
  private async lost(): Promise<void> {
    const was = this.state();
    this.letGo();
    this.set('off');
    if (was === 'off') return;
    await this.open(was);
    if (this.tellSwitched(true)) return;
    // What was allowed and isn't any more comes back by the browser's own switch alone.
    if (this.fault() === 'missing') this.fault.set('gone');
  }

  private async lookAgain(): Promise<void> {
    const came = await this.cameSince();
    if (!this.known.has(this.plugged()?.id ?? '')) this.plugged.set(null);
    const [one] = came;
    if (!one) return;
    if (this.wanted && !this.track) {
      await this.open(this.wanted, one.id || null);
      this.tellSwitched(false);
      return;
    }
    if (!this.track) return;
    const chosen = came.find(({ id }) => id === chosenMicrophone()?.id);
    if (!chosen) return this.plugged.set(one);
    await this.use(chosen);
    this.tellSwitched(false);
  }

  /** Those that weren't there when it was looked last. */
  private async cameSince(): Promise<readonly SoundDevice[]> {
    const before = this.known;
    const now = await microphones();
    this.known = new Set(now.map(({ id }) => id));
    return now.filter(({ id }) => !before.has(id));
  }

  /** @returns whether there is one to tell of */
  private tellSwitched(isGone: boolean): boolean {
    if (this.track) this.switched.set({ isGone, to: this.track.label });
    return this.track !== null;
  }
}
