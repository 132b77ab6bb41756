import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { Arrival } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import type { DoorWord } from '@cuaderno/core/permissions';
import { DoorOpen } from 'lucide';
import { Button } from '../../ui/button/button';
import { Icon } from '../../ui/icons/icon';

/** Who is at the door, with one touch to let them in; and who was sent out. */
@Component({
  selector: 'cua-door-list',
  imports: [Button, Icon],
  templateUrl: './door-list.html',
  styleUrl: './door-list.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DoorList {
  readonly arrivals = input.required<readonly Arrival[]>();
  readonly word = output<{ who: Id | 'all'; word: DoorWord }>();

  protected readonly icons = { DoorOpen };
  protected readonly waiting = computed(() =>
    this.arrivals()
      .filter(({ state }) => state === 'waiting' || state === 'not-now')
      .map((arrival) => ({ ...arrival, label: labelOf(arrival), note: noteOf(arrival) })),
  );
  protected readonly knocking = computed(
    () => this.waiting().filter(({ state }) => state === 'waiting').length,
  );
  protected readonly out = computed(() =>
    this.arrivals()
      .filter(({ state }) => state === 'out' || state === 'barred')
      .map((arrival) => ({ ...arrival, label: labelOf(arrival) })),
  );
}

function labelOf({ name, nameOrdinal }: Arrival): string {
  return nameOrdinal > 1 ? `${name} (${nameOrdinal})` : name;
}

/** What helps to tell who it is. */
function noteOf({ name, known, guest, state }: Arrival): string {
  if (state === 'not-now') return 'told “not now”';
  if (guest !== null) return `came by the link for ${guest}`;
  if (known === null) return 'not here before';
  return known === name ? 'was here before' : `was here before as ${known}`;
}
