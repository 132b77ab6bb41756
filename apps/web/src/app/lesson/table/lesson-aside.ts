import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  input,
  output,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { AT_FIRST } from '@cuaderno/core/permissions';
import type { Author } from '@cuaderno/core/drawing';
import type { ChatTo } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import type { Course } from '../../api/shapes';
import type { BoardSession } from '../../live/board-session';
import { FeatureViews } from '../../live/features/feature-views';
import { LessonWatch } from '../notice/lesson-watch';
import { Notices } from '../notice/notices';
import { DoorList } from '../people/door-list';
import { PeoplePanel } from '../people/people-panel';
import type { PersonWish } from '../people/people-panel';
import { ChatPanel } from '../talk/chat-panel';
import { JoinCard } from '../way-in/join-card';

/**
 * The class, in the column beside the page: who is here or what is written, who is at the door, and how students
 * come in.
 */
@Component({
  selector: 'cua-lesson-aside',
  imports: [ChatPanel, DoorList, FeatureViews, JoinCard, PeoplePanel],
  templateUrl: './lesson-aside.html',
  styleUrl: './lesson-aside.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LessonAside {
  readonly session = input.required<BoardSession>();
  readonly numbers = input.required<ReadonlyMap<Id, string>>();
  readonly course = input<Pick<Course, 'id' | 'name' | 'linkToken' | 'joinCode'> | null>(null);
  /** By which colours people are told apart. */
  readonly authors = input<ReadonlyMap<Id, Author>>(new Map());
  /** Which of it is in sight; it hears of what happens also where none is. */
  readonly shows = input<'people' | 'chat' | null>('people');
  /** What is wished of the board: to go somewhere, to wipe, to say what may be done. */
  readonly wished = output<PersonWish>();

  private readonly doorList = viewChild<unknown, ElementRef<HTMLElement>>(DoorList, {
    read: ElementRef,
  });
  protected readonly notices = inject(Notices);
  private readonly watch = new LessonWatch(
    (kind, words) => this.notices.tell(kind, words),
    (kind) => this.notices.settle(kind),
  );
  /** Messages of others that were read already. */
  private readonly read = signal(0);
  private readonly others = computed(
    () =>
      this.session()
        .features.talk.chat()
        .filter(({ by }) => by !== this.session().me()).length,
  );
  readonly unread = computed(() => Math.max(0, this.others() - this.read()));
  protected readonly boardNames = computed(
    () =>
      new Map(
        this.session()
          .features.lessonBoards.boards()
          .map(({ id, title }) => [id, title]),
      ),
  );
  protected readonly alone = computed(
    () =>
      !this.session()
        .people()
        .some(({ role }) => role === 'student'),
  );
  protected readonly chatOff = computed(() => {
    const { chatAll = AT_FIRST.chatAll, chatTutor = AT_FIRST.chatTutor } =
      this.session().features.pens.rules();
    return !chatAll && !chatTutor;
  });
  protected readonly write = computed(() => {
    const { features } = this.session();
    return (to: ChatTo, text: string): boolean => features.talk.write(to, text);
  });

  constructor() {
    effect(() => {
      const { features, people, me } = this.session();
      this.watch.arrivals(features.door.arrivals());
      this.watch.people(people());
      this.watch.chat(features.talk.chat(), people(), me());
    });
    effect(() => {
      const others = this.others();
      // Emptied, there is nothing left to read.
      if (this.shows() === 'chat' || others < untracked(this.read)) this.read.set(others);
    });
  }

  /** Brings who is at the door into sight. */
  toDoor(): void {
    const list = this.doorList()?.nativeElement;
    list?.scrollIntoView({ block: 'nearest' });
    list?.querySelector<HTMLElement>('button')?.focus({ preventScroll: true });
  }

  protected wish(wish: PersonWish): void {
    const { features } = this.session();
    switch (wish.kind) {
      case 'door':
        return features.door.decide(wish.who, wish.word, wish.as);
      case 'lead':
        return features.pens.handLead(wish.who);
      case 'lower':
        return features.talk.lower(wish.who);
      case 'mute':
        return features.media.mute(wish.who);
      case 'ask':
        return features.media.ask(wish.who);
      case 'signals':
        return features.talk.clearSignals();
      default:
        this.wished.emit(wish);
    }
  }

  protected switchChat(on: boolean): void {
    this.session().features.pens.setRules('all', { chatAll: on, chatTutor: on });
  }
}
