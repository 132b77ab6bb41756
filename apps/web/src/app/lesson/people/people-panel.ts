import {
  ChangeDetectionStrategy,
  Component,
  computed,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { nameOf } from '@cuaderno/core/people';
import type { Author } from '@cuaderno/core/drawing';
import type { LessonWindow, Person } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import type { DoorWord, GivenRole, Trust } from '@cuaderno/core/permissions';
import { Presentation, Ellipsis, Hand } from 'lucide';
import type { MenuItem } from 'primeng/api';
import { Menu, MenuModule } from 'primeng/menu';
import { Button } from '../../ui/button/button';
import { Icon } from '../../ui/icons/icon';
import type { Voice } from '../../live/features/media/media-state';
import { VoiceSign } from '../../live/features/media/voice-sign';
import { SIGNALS } from '../../live/features/talk/signals';
import { Tip } from '../../ui/tip/tip';
import { inWords } from './line-quality';
import { GIVEN_ROLES, ROLE_WORDS } from '../../live/role-words';
import { TRUST_STEPS } from './trust-steps';
import { EmptyState } from '../../ui/empty/empty-state';

/** What is done about one person, beside their pen. */
export type PersonWish =
  | { readonly kind: 'door'; readonly who: Id; readonly word: DoorWord; readonly as?: GivenRole }
  | { readonly kind: 'lead'; readonly who: Id | null }
  | { readonly kind: 'go'; readonly who: Id }
  | { readonly kind: 'gather'; readonly window: Id }
  | { readonly kind: 'wipe'; readonly who: Id }
  | { readonly kind: 'may'; readonly who: Id | 'all' }
  | { readonly kind: 'lower'; readonly who: Id | 'all' }
  | { readonly kind: 'signals' }
  | { readonly kind: 'mute'; readonly who: Id }
  | { readonly kind: 'ask'; readonly who: Id };

/**
 * Who is here and what each may do with their pen. One touch says it, for one student or for all; it is
 * always at the same place.
 */
@Component({
  selector: 'cua-people-panel',
  imports: [Button, Icon, MenuModule, EmptyState, Tip, VoiceSign],
  templateUrl: './people-panel.html',
  styleUrl: './people-panel.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PeoplePanel {
  readonly people = input.required<readonly Person[]>();
  /** The person at this window: they aren't in the list. */
  readonly me = input<Id | null>(null);
  /** The windows that they have, the earlier first. */
  readonly windows = input<readonly LessonWindow[]>([]);
  /** Whether windows follow the person who leads: then nobody is brought anywhere alone. */
  readonly inStep = input(false);
  /** The board in sight, and what others are called. */
  readonly board = input<Id | null>(null);
  readonly boardNames = input<ReadonlyMap<Id, string>>(new Map());
  /** Number of each page of the board in sight, by its id. */
  readonly numbers = input<ReadonlyMap<Id, string>>(new Map());
  /** The student who leads. */
  readonly lead = input<Id | null>(null);
  /** By which colour each is told apart, where that is known. */
  readonly authors = input<ReadonlyMap<Id, Pick<Author, 'colour'>>>(new Map());
  /** Whose microphone is on or muted, and who speaks this moment. */
  readonly voices = input<ReadonlyMap<Id, Voice>>(new Map());
  readonly speaking = input<ReadonlySet<Id>>(new Set());
  /** What the class has: who comes late has it too. */
  readonly late = input<Trust>('view');
  /** Whether one can say what somebody is from now on. */
  readonly givesRoles = input(false);
  readonly trust = output<{ who: Id | 'all'; trust: Trust }>();
  readonly wish = output<PersonWish>();

  private readonly menu = viewChild.required(Menu);
  /** Whose menu is open. */
  private readonly meant = signal<Id | null>(null);
  protected readonly icons = { Presentation, Ellipsis, Hand };
  protected readonly steps = TRUST_STEPS;
  protected readonly students = computed(() =>
    this.people()
      .filter(({ role }) => role === 'student')
      .map((person) => ({
        ...person,
        label: nameOf(person),
        leads: person.id === this.lead(),
        where: this.whereIs(person),
        line: inWords(person.roundTrip),
        says: SIGNALS.find(({ signal }) => signal === person.signal),
      })),
  );
  /** Those who teach besides the person at this window, and those who watch. */
  protected readonly others = computed(() =>
    this.people()
      .filter(({ id, role }) => role !== 'student' && id !== this.me())
      .map((person) => ({
        ...person,
        label: nameOf(person),
        leads: person.id === (this.lead() ?? this.tutor()),
        is: ROLE_WORDS[person.role],
        where: this.whereIs(person),
      })),
  );
  private readonly tutor = computed(() => this.people().find(({ role }) => role === 'tutor')?.id);
  protected readonly hands = computed(
    () => this.students().filter(({ hand }) => hand !== null).length,
  );
  /** How many give each signal, at a glance. */
  protected readonly counts = computed(() =>
    SIGNALS.map((one) => ({
      ...one,
      count: this.students().filter((person) => person.signal === one.signal).length,
    })).filter(({ count }) => count > 0),
  );
  protected readonly wishes = computed<MenuItem[]>(() => {
    const id = this.meant() ?? '';
    const person = this.students().find((one) => one.id === id);
    const tell = (wish: PersonWish) => ({ command: () => this.wish.emit(wish) });
    const role = this.people().find((one) => one.id === id)?.role;
    const becomes = GIVEN_ROLES.filter((one) => this.givesRoles() && one.role !== role).map(
      (one): MenuItem => ({
        label: `Make them a ${one.label.toLowerCase()}`,
        ...tell({ kind: 'door', who: id, word: 'in', as: one.role }),
      }),
    );
    const sent: MenuItem[] = [
      ...(becomes.length > 0 ? [{ separator: true }, ...becomes] : []),
      { separator: true },
      {
        label: 'Send out, may knock again',
        ...tell({ kind: 'door', who: id, word: 'out' }),
      },
      { label: 'Send out for this lesson', ...tell({ kind: 'door', who: id, word: 'barred' }) },
    ];
    const other = this.others().find((one) => one.id === id);
    if (other) {
      const goes = {
        label: 'Go where they are',
        disabled: !other.page,
        ...tell({ kind: 'go', who: id }),
      };
      const leads = other.leads
        ? { label: 'Take the lead back', ...tell({ kind: 'lead', who: null }) }
        : { label: 'Hand over the lead', ...tell({ kind: 'lead', who: id }) };
      return other.role === 'tutor'
        ? [goes]
        : [goes, ...(other.role === 'helper' ? [leads, this.voiceWish(id)] : []), ...sent];
    }
    if (!person) return [];
    return [
      { label: 'Go where they are', disabled: !person.view, ...tell({ kind: 'go', who: id }) },
      ...(this.inStep() ? [] : this.windowsOf(id)).map(({ id: window }, at, all) => ({
        label: all.length === 1 ? 'Bring them here' : `Bring their ${machineName(all, at)} here`,
        ...tell({ kind: 'gather', window }),
      })),
      person.leads
        ? { label: 'Take the lead back', ...tell({ kind: 'lead', who: null }) }
        : { label: 'Hand over the lead', ...tell({ kind: 'lead', who: id }) },
      this.voiceWish(id),
      { label: 'Permissions…', ...tell({ kind: 'may', who: id }) },
      { label: 'Wipe their ink …', ...tell({ kind: 'wipe', who: id }) },
      ...sent,
    ];
  });

  protected open(event: Event, person: Id): void {
    this.meant.set(person);
    this.menu().toggle(event);
  }

  /** Nobody is switched on from outside: they are asked. */
  private voiceWish(who: Id): MenuItem {
    return this.voices().get(who) === 'on'
      ? { label: 'Mute', command: () => this.wish.emit({ kind: 'mute', who }) }
      : {
          label: 'Ask to switch the microphone on',
          command: () => this.wish.emit({ kind: 'ask', who }),
        };
  }

  private whereIs(person: Person): string {
    if (!person.here) return 'away';
    const isHere = person.board === this.board();
    const number = person.page && isHere ? this.numbers().get(person.page) : undefined;
    const place = number
      ? `page ${number}`
      : isHere
        ? undefined
        : this.boardNames().get(person.board ?? '');
    const windows = this.windowsOf(person.id);
    const machines = windows.flatMap(({ machine }) => machine ?? []);
    const on = machines.length > 0 ? [...new Set(machines)].join(' and ') : person.machine;
    return [place ?? 'here', on].filter(Boolean).join(' · ');
  }

  private windowsOf(person: Id): readonly LessonWindow[] {
    return this.windows().filter((window) => window.person === person);
  }
}

/** What a window is called beside others of the same person: "tablet", or "second tablet". */
function machineName(windows: readonly LessonWindow[], at: number): string {
  const name = windows[at]!.machine ?? 'window';
  const earlier = windows.slice(0, at).filter(({ machine }) => (machine ?? 'window') === name);
  return [ORDINALS[earlier.length] ?? 'other', name].filter(Boolean).join(' ');
}

const ORDINALS = ['', 'second', 'third', 'fourth'];
