import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import type { PlacedItem } from '@cuaderno/core/board';
import type { MediaSpec } from '@cuaderno/core/kinds';
import { Pause, Play, Square } from 'lucide';
import { Icon } from '../../ui/icons/icon';
import { Tip } from '../../ui/tip/tip';
import type { Films } from '../drawing/films';
import { formatPlace } from '../../ui/time/format-time';

/** Narrowest and widest bar of controls, in CSS px. */
const NARROWEST = 200;
const WIDEST = 520;
/** How far the bar begins behind the sign's left edge, in CSS px. */
const BEHIND = 22;

/**
 * Plays one sound or film for the person who presses. Its sign is drawn on the page; here is what
 * is touched, and the controls while it plays. A film's pictures are drawn by the stage.
 */
@Component({
  selector: 'cua-media-player',
  imports: [Icon, Tip],
  templateUrl: './media-player.html',
  styleUrl: './media-player.scss',
  host: {
    role: 'group',
    '[attr.aria-label]': 'label()',
    '[style.left.px]': 'left() - side() / 2',
    '[style.top.px]': 'top() - side() / 2',
  },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MediaPlayer {
  readonly item = input.required<PlacedItem & MediaSpec>();
  readonly films = input.required<Films>();
  /** Why this person can't run it; `null` where they can. */
  readonly refused = input<string | null>(null);
  /** Middle of the sign, in CSS px from the stage's corner; its side; what is free beside it. */
  readonly left = input.required<number>();
  readonly top = input.required<number>();
  readonly side = input.required<number>();
  readonly room = input.required<number>();

  protected readonly icons = { Pause, Play, Square };
  protected readonly started = signal(false);
  protected readonly playing = signal(false);
  protected readonly waiting = signal(false);
  protected readonly at = signal(0);
  private readonly told = signal(0);
  protected readonly problem = signal<string | null>(null);
  protected readonly length = computed(() => this.item().length ?? this.told());
  protected readonly label = computed(() => {
    const { medium, name } = this.item();
    return `${medium === 'film' ? 'Film' : 'Sound'}: ${name}`;
  });
  protected readonly width = computed(() =>
    Math.min(WIDEST, Math.max(NARROWEST, this.room() + this.side() / 2 - BEHIND)),
  );
  protected readonly time = computed(
    () => `${formatPlace(this.at())} / ${formatPlace(this.length())}`,
  );

  private media: HTMLMediaElement | null = null;
  private file: string | null = null;

  constructor() {
    effect(() => {
      // Put in another's place, by undoing say: what plays is no longer what lies here.
      if (this.file !== null && this.item().file !== this.file) this.stop();
    });
    effect(() => {
      if (this.refused() !== null) untracked(() => this.stop());
    });
    inject(DestroyRef).onDestroy(() => this.stop());
  }

  protected toggle(): void {
    if (this.playing()) return this.media?.pause();
    this.problem.set(this.refused());
    if (this.refused() !== null) return;
    this.started.set(true);
    void this.element()
      .play()
      .catch((error: unknown) => this.fail(error));
  }

  protected seek(to: number): void {
    this.at.set(to);
    if (this.media) this.media.currentTime = to;
  }

  /** Puts it away: its own picture is there again, and it begins from its start. */
  protected stop(): void {
    const { media } = this;
    this.media = null;
    this.file = null;
    this.started.set(false);
    this.playing.set(false);
    this.at.set(0);
    if (!media) return;
    media.pause();
    media.removeAttribute('src');
    media.load();
    this.films().stop(this.item().id);
  }

  private element(): HTMLMediaElement {
    if (this.media) return this.media;
    const { medium, file, id } = this.item();
    const media = document.createElement(medium === 'film' ? 'video' : 'audio');
    const mine = (then: () => void) => (): void => {
      if (this.media === media) then();
    };
    media.preload = 'auto';
    media.addEventListener(
      'play',
      mine(() => this.playing.set(true)),
    );
    media.addEventListener(
      'pause',
      mine(() => this.playing.set(false)),
    );
    media.addEventListener(
      'waiting',
      mine(() => this.waiting.set(true)),
    );
    media.addEventListener(
      'playing',
      mine(() => this.waiting.set(false)),
    );
    media.addEventListener(
      'timeupdate',
      mine(() => this.at.set(media.currentTime)),
    );
    media.addEventListener(
      'durationchange',
      mine(() => this.told.set(media.duration)),
    );
    media.addEventListener(
      'ended',
      mine(() => this.stop()),
    );
    media.addEventListener(
      'error',
      mine(() => this.fail(media.error)),
    );
    media.src = `/api/files/${file}`;
    this.media = media;
    this.file = file;
    if (media instanceof HTMLVideoElement) {
      media.playsInline = true;
      this.films().show(id, media);
    }
    return media;
  }

  private fail(error: unknown): void {
    // Stopped before it began: nothing is wrong.
    if (error instanceof DOMException && error.name === 'AbortError') return;
    if (!this.media) return;
    const line = this.media.error?.code === MediaError.MEDIA_ERR_NETWORK;
    this.stop();
    this.problem.set(
      line
        ? 'It could not be fetched. Check the connection and press again.'
        : 'This browser can’t play it. Try another browser, or upload it as MP4 or MP3.',
    );
  }
}
