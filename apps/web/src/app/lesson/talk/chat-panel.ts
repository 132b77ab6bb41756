import type { ElementRef } from '@angular/core';
import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { MAX_CHAT } from '@cuaderno/core/features';
import { listNames, nameOf } from '@cuaderno/core/people';
import type { ChatLine, ChatTo, Person } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import { Send, X } from 'lucide';
import { Button } from '../../ui/button/button';
import { Icon } from '../../ui/icons/icon';
import { shownZone } from '../../ui/time/shown-zone';
import { EmptyState } from '../../ui/empty/empty-state';

/** What is written in a lesson: to all, or between one student and the tutor. */
@Component({
  selector: 'cua-chat-panel',
  imports: [Button, Icon, EmptyState],
  templateUrl: './chat-panel.html',
  styleUrl: './chat-panel.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ChatPanel {
  readonly lines = input.required<readonly ChatLine[]>();
  readonly people = input.required<readonly Person[]>();
  readonly me = input.required<Id>();
  /** Whether one teaches in the lesson: then every single person can be written to. */
  readonly isTutor = input(false);
  /** Whether all messages may be deleted. */
  readonly mayDelete = input(false);
  /** Why one can't write to all, or to the tutor; `null` where one can. */
  readonly notAll = input<string | null>(null);
  readonly notTutor = input<string | null>(null);
  /** Whether it was switched off for students. */
  readonly off = input(false);
  /** Sends a message; says whether it is on its way. */
  readonly write = input.required<(to: ChatTo, text: string) => boolean>();
  readonly allDeleted = output();
  readonly switched = output<boolean>();

  protected readonly longest = MAX_CHAT;
  protected readonly icons = { Send, X };
  protected readonly text = signal('');
  private readonly to = signal<ChatTo>('all');
  private readonly list = viewChild<ElementRef<HTMLElement>>('list');

  /** Who reads what is written to the tutor: those who help, too. */
  private readonly tutors = computed(() => {
    const helpers = this.people().filter(({ id, role }) => role === 'helper' && id !== this.me());
    return helpers.length === 0
      ? 'the tutor alone'
      : listNames(['the tutor', ...helpers.map(nameOf)]);
  });
  private readonly isTutorThere = computed(() =>
    this.people().some(({ id, role }) => role === 'tutor' && id === this.me()),
  );
  /** Whom one may write to just now. */
  protected readonly readers = computed(() => {
    if (!this.isTutor())
      return [
        ...(this.notAll() === null ? [{ to: 'all', label: 'To all' }] : []),
        ...(this.notTutor() === null ? [{ to: 'tutor', label: `To ${this.tutors()}` }] : []),
      ];
    const others = this.people().filter(({ id, role }) => id !== this.me() && role !== 'tutor');
    return [
      { to: 'all', label: 'To all' },
      ...(this.isTutorThere() ? [] : [{ to: 'tutor', label: 'To the tutor alone' }]),
      ...others.map((person) => ({ to: person.id, label: `To ${nameOf(person)} alone` })),
    ];
  });
  protected readonly chosen = computed(() => {
    const readers = this.readers();
    return readers.some(({ to }) => to === this.to()) ? this.to() : (readers[0]?.to ?? null);
  });
  protected readonly why = computed(() =>
    this.readers().length > 0 ? null : (this.notTutor() ?? this.notAll()),
  );
  protected readonly shown = computed(() => {
    const people = new Map(this.people().map((person) => [person.id, person]));
    const name = (id: string): string => {
      const person = people.get(id);
      if (id === this.me()) return 'You';
      return person ? nameOf(person) : 'Someone who left';
    };
    const clock = new Intl.DateTimeFormat(undefined, {
      ...{ hour: '2-digit', minute: '2-digit', timeZone: shownZone() },
    });
    return this.lines().map(({ id, by, to, text, at }) => ({
      id,
      own: by === this.me(),
      from: name(by),
      alone:
        to === 'all'
          ? ''
          : to === 'tutor'
            ? `to ${this.tutors()}`
            : to === this.me()
              ? 'to you alone'
              : `to ${name(to)} alone`,
      text,
      time: clock.format(at),
    }));
  });

  constructor() {
    // What was said last is in sight.
    afterRenderEffect(() => {
      this.shown();
      const list = this.list()?.nativeElement;
      if (list) list.scrollTop = list.scrollHeight;
    });
  }

  protected choose(to: string): void {
    this.to.set(to);
  }

  protected send(): void {
    const to = this.chosen();
    const text = this.text().trim();
    if (!to || text === '') return;
    // What couldn't be sent stays where it was written.
    if (this.write()(to as ChatTo, text)) this.text.set('');
  }

  protected key(event: KeyboardEvent): void {
    if (event.key !== 'Enter' || event.shiftKey || event.isComposing) return;
    event.preventDefault();
    this.send();
  }
}
