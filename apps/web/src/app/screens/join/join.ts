import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  inject,
  input,
  signal,
  effect,
  untracked,
} from '@angular/core';
import { Router } from '@angular/router';
import { Api, ApiError, troubleOf } from '../../api/api';
import type { Trouble } from '../../api/api';
import { sayWhen, sayZone } from '../../time/say-time';
import { FirstFocus } from '../first-focus';

interface Entrance {
  readonly course: string;
  readonly tutor: string;
  readonly open: boolean;
  /** When the next lesson begins, in ms since 1970. */
  readonly nextAt: number | null;
  readonly name: string | null;
}

/** How often a closed door is tried, in ms. */
const KNOCK = 3000;

/** A student's way in: the code, if there was no link; then a first name, and nothing else. */
@Component({
  selector: 'cua-join',
  imports: [FirstFocus],
  templateUrl: './join.html',
  styleUrl: './join.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class JoinScreen {
  /** From the address, where someone came by link. */
  readonly link = input<string>();

  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly code = signal('');
  protected readonly entrance = signal<Entrance | null>(null);
  protected readonly say = { when: sayWhen, zone: sayZone };
  protected readonly busy = signal(false);
  protected readonly trouble = signal<Trouble | null>(null);
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor() {
    effect(() => {
      if (this.link()) untracked(() => void this.look());
    });
    inject(DestroyRef).onDestroy(() => clearTimeout(this.timer));
    // While a name is typed, the lesson's own code comes in.
    requestIdleCallback?.(
      () => void Promise.all([import('../door/door'), import('../lesson/lesson')]),
    );
  }

  protected find(code: string): void {
    this.code.set(code);
    void this.look();
  }

  protected async enter(name: string): Promise<void> {
    this.busy.set(true);
    this.trouble.set(null);
    try {
      const { state } = await this.api.post<{ state: string }>('/join', { by: this.by(), name });
      await this.router.navigateByUrl(state === 'in' ? '/lesson' : '/door');
    } catch (error) {
      this.trouble.set(troubleOf(error));
      if (error instanceof ApiError && error.code === 'lesson-not-open') await this.look();
    } finally {
      this.busy.set(false);
    }
  }

  protected async look(): Promise<void> {
    clearTimeout(this.timer);
    try {
      const entrance = await this.api.post<Entrance>('/join/look', this.by());
      this.entrance.set(entrance);
      this.trouble.set(null);
      if (!entrance.open) this.timer = setTimeout(() => void this.look(), KNOCK);
    } catch (error) {
      this.trouble.set(troubleOf(error));
    }
  }

  private by(): { link: string } | { code: string } {
    const link = this.link();
    return link ? { link } : { code: this.code() };
  }
}
