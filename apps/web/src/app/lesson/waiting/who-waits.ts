import {
  computed,
  effect,
  inject,
  Injectable,
  InjectionToken,
  signal,
  untracked,
} from '@angular/core';
import type { Waiting } from '@cuaderno/core/features';
import { LiveLink } from '../../live/live-link';
import type { Dial } from '../../live/live-link';
import { WindowTitle } from '../../ui/title/window-title';
import { Notices } from '../notice/notices';

/** How the line is made: another way in tests. */
export const WAITING_DIAL = new InjectionToken<Dial | undefined>('dial', {
  factory: () => undefined,
});

/** “Ida and Noor”; anyone who hasn't said their name is “someone”. */
export function namesOf({ names }: Waiting): string {
  const known = names.filter((name) => name !== null);
  const others = names.length - known.length;
  const all = [...known, ...(others === 0 ? [] : [others === 1 ? 'someone' : `${others} others`])];
  const text = all.length < 2 ? all.join('') : `${all.slice(0, -1).join(', ')} and ${all.at(-1)!}`;
  return text.slice(0, 1).toUpperCase() + text.slice(1);
}

/** In words, with the course. */
export function formatWaiting(waiting: Waiting): string {
  const are = waiting.names.length === 1 ? 'is' : 'are';
  return waiting.board === null
    ? `${namesOf(waiting)} ${are} waiting for ${waiting.courseName}, which isn’t open yet`
    : `${namesOf(waiting)} ${are} at the door of ${waiting.courseName}`;
}

/**
 * Who waits for any of the tutor's lessons, on whatever screen the tutor is: it is told once, as the tutor wishes to
 * hear of the door, and stands in the title of the window for as long as somebody waits.
 */
@Injectable()
export class WhoWaits {
  private readonly notices = inject(Notices);
  private readonly link: LiveLink;
  /** The board in this window, on which its own door is shown anyway. */
  readonly board = signal<string | null>(null);
  private readonly all = signal<readonly Waiting[]>([]);
  /** Those who aren't shown on this screen anyway, the open lesson's first. */
  readonly elsewhere = computed(() =>
    this.all().filter(({ board }) => board === null || board !== this.board()),
  );
  private known = new Set<string>();
  private readonly title = inject(WindowTitle);

  constructor() {
    this.link = new LiveLink('/live/waiting', inject(WAITING_DIAL));
    this.link.events.subscribe((event) => {
      if (event.kind === 'message' && event.message.kind === 'waiting')
        this.all.set(event.message.who);
    });
    effect(() => {
      const [all, elsewhere] = [this.all(), this.elsewhere()];
      untracked(() => this.tell(all, elsewhere));
    });
  }

  /** Somebody has signed in again. */
  resume(): void {
    this.link.resume();
  }

  close(): void {
    this.link.close();
    this.title.wait(0);
  }

  private tell(all: readonly Waiting[], elsewhere: readonly Waiting[]): void {
    const count = all.reduce((sum, { names }) => sum + names.length, 0);
    this.title.wait(count);
    const now = new Set<string>();
    for (const waiting of elsewhere) {
      const fresh = waiting.names.filter((name, i) => {
        const key = `${waiting.course} ${waiting.board ?? ''} ${name ?? `#${i}`}`;
        now.add(key);
        return !this.known.has(key);
      });
      if (fresh.length > 0) this.notices.tell('door', formatWaiting({ ...waiting, names: fresh }));
    }
    this.known = now;
  }
}
