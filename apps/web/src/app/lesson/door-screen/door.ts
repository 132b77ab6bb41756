import type { Answer } from '@cuaderno/contract/route';
import type { readDoor } from '@cuaderno/contract/routes/lessons';
import { CLOSE } from '@cuaderno/core/features';
import type { DoorState } from '@cuaderno/core/permissions';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  InjectionToken,
  signal,
} from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { firstValueFrom } from 'rxjs';
import { Attempt } from '../../api/attempt';
import { LessonsApi } from '../../api/lessons-api';
import { Button } from '../../ui/button/button';
import { wayBack } from '../way-back/way-back';
import { LiveLink } from '../../live/live-link';
import type { Dial, LinkEvent } from '../../live/live-link';
import { ProblemMessage } from '../../ui/problem/problem-message';

/** How the line is made: another way in tests. */
export const DIAL = new InjectionToken<Dial | undefined>('dial', { factory: () => undefined });

type DoorOf = Answer<typeof readDoor>;

/** What a student sees at the door of a lesson: that the tutor knows, and when they may come in. */
@Component({
  selector: 'cua-door',
  imports: [Button, ProblemMessage, RouterLink],
  templateUrl: './door.html',
  styleUrl: './door.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DoorScreen {
  private readonly lessonsApi = inject(LessonsApi);
  private readonly router = inject(Router);
  protected readonly door = signal<DoorOf | null>(null);
  protected readonly state = signal<DoorState | 'over' | 'gone'>('waiting');
  protected readonly away = signal(false);
  protected readonly wayBack = wayBack;
  protected readonly attempt = new Attempt();
  /** What is said and what can be done, by where the student stands. */
  protected readonly words = computed(() => WORDS[this.state()]);
  private readonly link = new LiveLink('/live/door', inject(DIAL));

  constructor() {
    this.link.events.subscribe((event) => this.onEvent(event));
    void this.load();
    effect(() => {
      if (this.state() === 'in') void this.router.navigateByUrl('/lesson', { replaceUrl: true });
    });
    inject(DestroyRef).onDestroy(() => this.link.close());
  }

  protected async knock(): Promise<void> {
    await this.attempt.make(async () => {
      const { state } = await firstValueFrom(this.lessonsApi.knockAgain());
      this.state.set(state);
    });
  }

  private async load(): Promise<void> {
    // Whose door it is: a kindness; where one stands is told on the line.
    this.door.set(await firstValueFrom(this.lessonsApi.readDoor()).catch(() => null));
  }

  private onEvent(event: LinkEvent): void {
    if (event.kind === 'away') this.away.set(true);
    else if (event.kind === 'open') this.away.set(false);
    else if (event.kind === 'ended') this.state.set(event.code === CLOSE.over ? 'over' : 'gone');
    else if (event.kind === 'message' && event.message.kind === 'door.state')
      this.state.set(event.message.state);
  }
}

interface DoorSentence {
  readonly title: string;
  readonly detail: string;
  readonly knock: boolean;
}

const WORDS: Record<DoorState | 'over' | 'gone', DoorSentence> = {
  waiting: {
    title: 'You are at the door',
    detail: 'Your tutor sees that you are here, and lets you in. Nothing more to do.',
    knock: false,
  },
  in: { title: 'Come in', detail: 'The board is coming.', knock: false },
  'not-now': {
    title: 'Not just now',
    detail: 'Your tutor isn’t ready for you yet. Stay here: the door may open, or knock once more.',
    knock: true,
  },
  out: {
    title: 'You are outside',
    detail: 'Your tutor has sent you out of the lesson. You can knock and ask to come in again.',
    knock: true,
  },
  barred: {
    title: 'You are outside',
    detail: 'Your tutor has sent you out of this lesson. You can come to the next one.',
    knock: false,
  },
  over: {
    title: 'The lesson is over',
    detail: 'See you next time!',
    knock: false,
  },
  gone: {
    title: 'Your place at the door has expired',
    detail: 'Enter your name once more, and you are back.',
    knock: false,
  },
};
