import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { Id, Person, Trust } from '@cuaderno/core';
import { Pen, PenOff } from 'lucide';
import { Icon } from '../icons/icon';

/**
 * Who is here and who holds a pen. One touch gives a pen or takes it back, for one student or for
 * all; it is always at the same place.
 */
@Component({
  selector: 'cua-people-panel',
  imports: [Icon],
  templateUrl: './people-panel.html',
  styleUrl: './people-panel.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PeoplePanel {
  readonly people = input.required<readonly Person[]>();
  /** Number of each page, by its id. */
  readonly numbers = input<ReadonlyMap<Id, number>>(new Map());
  readonly trust = output<{ who: Id | 'all'; trust: Trust }>();

  protected readonly icons = { Pen, PenOff };
  protected readonly students = computed(() =>
    this.people()
      .filter(({ role }) => role === 'student')
      .map((person) => ({
        ...person,
        label: person.nth > 1 ? `${person.name} (${person.nth})` : person.name,
        writes: person.trust !== 'look',
        number: person.page ? this.numbers().get(person.page) : undefined,
      })),
  );
  protected readonly writing = computed(
    () => this.students().filter(({ writes }) => writes).length,
  );
}
