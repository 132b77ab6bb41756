import {
  ChangeDetectionStrategy,
  Component,
  computed,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import type { Arrival } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import type { DoorWord, GivenRole } from '@cuaderno/core/permissions';
import { DoorOpen, Ellipsis } from 'lucide';
import type { MenuItem } from 'primeng/api';
import { Menu, MenuModule } from 'primeng/menu';
import { Button } from '../../ui/button/button';
import { Icon } from '../../ui/icons/icon';
import { GIVEN_ROLES } from '../../live/role-words';

/** What is said at the door, of whom. */
export interface WordAtDoor {
  readonly who: Id | 'all';
  readonly word: DoorWord;
  /** What they are let in as, if that is another than they come as. */
  readonly as?: GivenRole;
}

/** Who is at the door, with one touch to let them in; and who was sent out. */
@Component({
  selector: 'cua-door-list',
  imports: [Button, Icon, MenuModule],
  templateUrl: './door-list.html',
  styleUrl: './door-list.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DoorList {
  readonly arrivals = input.required<readonly Arrival[]>();
  /** Whether one can say as what somebody is let in. */
  readonly givesRoles = input(false);
  readonly word = output<WordAtDoor>();

  private readonly menu = viewChild(Menu);
  /** Whose menu is open. */
  private readonly meant = signal<Id | null>(null);
  protected readonly icons = { DoorOpen, Ellipsis };
  protected readonly waiting = computed(() =>
    this.arrivals()
      .filter(({ state }) => state === 'waiting' || state === 'not-now')
      .map((arrival) => ({ ...arrival, label: labelOf(arrival), note: noteOf(arrival) })),
  );
  protected readonly knocking = computed(
    () => this.waiting().filter(({ state }) => state === 'waiting').length,
  );
  /** As what else the one who is meant can be let in. */
  protected readonly ways = computed<MenuItem[]>(() => {
    const arrival = this.arrivals().find(({ id }) => id === this.meant());
    return GIVEN_ROLES.filter(({ role }) => arrival && role !== arrival.role).map(
      ({ role, label }) => ({
        label: `Let in as a ${label.toLowerCase()}`,
        command: () => this.word.emit({ who: arrival!.id, word: 'in', as: role }),
      }),
    );
  });
  protected readonly out = computed(() =>
    this.arrivals()
      .filter(({ state }) => state === 'out' || state === 'barred')
      .map((arrival) => ({ ...arrival, label: labelOf(arrival) })),
  );

  protected open(event: Event, person: Id): void {
    this.meant.set(person);
    this.menu()?.toggle(event);
  }
}

function labelOf({ name, nameOrdinal }: Arrival): string {
  return nameOrdinal > 1 ? `${name} (${nameOrdinal})` : name;
}

/** What helps to tell who it is. */
function noteOf({ name, known, guest, role, state }: Arrival): string {
  if (state === 'not-now') return 'told “not now”';
  const comes = { student: '', helper: ', to help', watcher: ', to watch' }[role];
  if (guest !== null) return `came by the link for ${guest}${comes}`;
  if (comes) return `was here before${comes}`;
  if (known === null) return 'not here before';
  return known === name ? 'was here before' : `was here before as ${known}`;
}
