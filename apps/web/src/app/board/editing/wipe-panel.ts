import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { wipe, writersOn } from '@cuaderno/core/edits';
import { nameOf } from '@cuaderno/core/people';
import type { Board } from '@cuaderno/core/board';
import type { Whose } from '@cuaderno/core/edits';
import type { Person } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import type { Change } from '@cuaderno/core/ops';
import { Button } from '../../ui/button/button';
import { SidePanel } from '../../ui/popup/side-panel';

interface WriterRow {
  readonly label: string;
  readonly whose: Whose;
  /** How many things that is. */
  readonly here: number;
  readonly all: number;
}

/** Takes ink away: mine, the students', one person's, or all; on this page, or the whole board. */
@Component({
  selector: 'cua-wipe-panel',
  imports: [Button, SidePanel],
  template: `
    <cua-side-panel header="Wipe ink" (closed)="closed.emit()">
      <p class="words">What lies under the ink stays. Undo brings everything back.</p>
      <ul>
        @for (row of rows(); track row.label) {
          <li>
            <strong>{{ row.label }}</strong>
            <button
              type="button"
              cuaButton
              [disabled]="row.here === 0"
              [attr.aria-label]="row.label + ' on this page, ' + things(row.here)"
              (click)="wipe(row.whose, false)"
            >
              This page <small>{{ row.here }}</small>
            </button>
            <button
              type="button"
              cuaButton
              [disabled]="row.all === 0"
              [attr.aria-label]="row.label + ' on all pages, ' + things(row.all)"
              (click)="wipe(row.whose, true)"
            >
              All pages <small>{{ row.all }}</small>
            </button>
          </li>
        }
      </ul>
    </cua-side-panel>
  `,
  styles: `
    @use '../../ui/theme/breakpoints';

    .words {
      margin: 0 0 var(--space-6);
      color: var(--ink-soft);
    }
    ul {
      display: grid;
      gap: var(--space-4);
      margin: 0;
      padding: 0;
      list-style: none;
    }
    li {
      display: grid;
      grid-template-columns: minmax(0, 1fr) 8.5rem 8.5rem;
      gap: var(--space-4);
      align-items: center;
    }
    .cua-button {
      gap: var(--space-4);
    }
    small {
      color: var(--ink-soft);
      font-variant-numeric: tabular-nums;
    }
    @media (max-width: breakpoints.$phone) {
      li {
        grid-template-columns: 1fr 1fr;
      }
      strong {
        grid-column: 1 / -1;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WipePanel {
  readonly board = input.required<Board>();
  readonly page = input.required<Id>();
  readonly me = input.required<Id>();
  readonly isTutor = input(false);
  readonly people = input<readonly Person[]>([]);
  /** The one person whose ink is meant, if it was opened for one. */
  readonly whom = input<Id | null>(null);
  readonly wiped = output<readonly Change[]>();
  readonly closed = output();

  protected readonly rows = computed<WriterRow[]>(() => {
    const me = this.me();
    const here = writersOn(this.board(), [this.page()]);
    const all = writersOn(this.board(), 'all');
    const of = (label: string, whose: Whose, meant: (by: Id) => boolean): WriterRow => {
      const sum = (counts: ReadonlyMap<Id, number>): number =>
        [...counts].reduce((n, [by, count]) => n + (meant(by) ? count : 0), 0);
      return { label, whose, here: sum(here), all: sum(all) };
    };
    const mine = of('Mine', { who: me }, (by) => by === me);
    if (!this.isTutor()) return [mine];
    const one = (id: Id, label: string): WriterRow => of(label, { who: id }, (by) => by === id);
    const people = this.people().filter(({ id, role }) => role === 'student' && all.has(id));
    const meant = this.whom();
    if (meant) return people.filter(({ id }) => id === meant).map((p) => one(p.id, nameOf(p)));
    return [
      mine,
      of('The students’', 'students', (by) => by !== me),
      ...people.map((person) => one(person.id, nameOf(person))),
      of('All ink', 'all', () => true),
    ];
  });

  protected things(count: number): string {
    return count === 1 ? '1 thing' : `${count} things`;
  }

  protected wipe(whose: Whose, everywhere: boolean): void {
    const pages = everywhere ? 'all' : [this.page()];
    this.wiped.emit(wipe(this.board(), whose, pages, this.me()));
  }
}
