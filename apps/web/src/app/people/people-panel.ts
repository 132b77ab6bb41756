import {
  ChangeDetectionStrategy,
  Component,
  computed,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import type { DoorWord, Id, Person, Trust } from '@cuaderno/core';
import { Ellipsis, Pen, PenOff } from 'lucide';
import type { MenuItem } from 'primeng/api';
import { Menu, MenuModule } from 'primeng/menu';
import { Icon } from '../icons/icon';

/**
 * Who is here and who holds a pen. One touch gives a pen or takes it back, for one student or for
 * all; it is always at the same place.
 */
@Component({
  selector: 'cua-people-panel',
  imports: [Icon, MenuModule],
  templateUrl: './people-panel.html',
  styleUrl: './people-panel.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PeoplePanel {
  readonly people = input.required<readonly Person[]>();
  /** Number of each page, by its id. */
  readonly numbers = input<ReadonlyMap<Id, number>>(new Map());
  readonly trust = output<{ who: Id | 'all'; trust: Trust }>();
  readonly word = output<{ who: Id; word: DoorWord }>();

  private readonly menu = viewChild.required(Menu);
  /** Whose menu is open. */
  private readonly meant = signal<Id | null>(null);
  protected readonly icons = { Ellipsis, Pen, PenOff };
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
  protected readonly wishes: MenuItem[] = [
    { label: 'Send out, may knock again', command: () => this.send('out') },
    { label: 'Send out for this lesson', command: () => this.send('barred') },
  ];

  protected open(event: Event, person: Id): void {
    this.meant.set(person);
    this.menu().toggle(event);
  }

  private send(word: DoorWord): void {
    const who = this.meant();
    if (who) this.word.emit({ who, word });
  }
}
