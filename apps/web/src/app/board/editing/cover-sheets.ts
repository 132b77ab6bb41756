import {
  ChangeDetectionStrategy,
  Component,
  computed,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { coversOn, itemsOn } from '@cuaderno/core/board';
import { coverPlace, layCover, liftCovers } from '@cuaderno/core/edits';
import { TINTS } from '@cuaderno/core/ink';
import type { Board } from '@cuaderno/core/board';
import type { CoverPlace, Covering } from '@cuaderno/core/edits';
import type { Id } from '@cuaderno/core/id';
import type { Change } from '@cuaderno/core/ops';
import { Columns2, Rows2, Square, Trash2 } from 'lucide';
import { Button } from '../../ui/button/button';
import { Icon } from '../../ui/icons/icon';
import { Popup } from '../../ui/popup/popup';
import { Tip } from '../../ui/tip/tip';

const WAYS: readonly { covering: Covering; label: string; icon: typeof Square }[] = [
  { covering: 'whole', label: 'One sheet', icon: Square },
  { covering: 'beside', label: 'Two, side by side', icon: Columns2 },
  { covering: 'above', label: 'Two, one above the other', icon: Rows2 },
];

const PLACES: Record<CoverPlace, string> = {
  whole: 'Sheet',
  left: 'Left sheet',
  right: 'Right sheet',
  top: 'Upper sheet',
  bottom: 'Lower sheet',
};

const WHITE = { name: 'white', label: 'White', colour: '#ffffff' } as const;

/** Lays an empty sheet over a page, or two; lifts them, lays them again, and takes them away for good. */
@Component({
  selector: 'cua-cover-sheets',
  imports: [Button, Icon, Popup, Tip],
  template: `
    <cua-popup #popup label="Cover sheet">
      <div class="sheet-desk">
        @if (sheets().length > 0) {
          <h3>On this page</h3>
          <ul>
            @for (sheet of sheets(); track sheet.id) {
              <li>
                <span class="swatch" [style.background]="sheet.tint"></span>
                <span class="name">
                  {{ sheet.name }}
                  <small>{{ sheet.words }}</small>
                </span>
                <button
                  type="button"
                  cuaButton
                  [attr.aria-label]="(sheet.lifted ? 'Lay again: ' : 'Take off: ') + sheet.name"
                  (click)="lift([sheet.id], !sheet.lifted)"
                >
                  {{ sheet.lifted ? 'Lay again' : 'Take off' }}
                </button>
                <button
                  type="button"
                  class="away"
                  cuaTip="Remove it, with what is written on it"
                  [attr.aria-label]="'Take away: ' + sheet.name"
                  (click)="takeAway(sheet.id)"
                >
                  <cua-icon [of]="icons.Trash2" [size]="18" />
                </button>
              </li>
            }
          </ul>
        }
        <h3>Lay an empty sheet</h3>
        <p class="words">
          The page under it stays as it is. What is written on a sheet comes off with it.
        </p>
        <div class="tints" role="group" aria-label="Colour of the sheet">
          @for (choice of tints; track choice.name) {
            <button
              type="button"
              class="tint"
              [attr.aria-label]="choice.label"
              [cuaTip]="choice.label"
              [attr.aria-pressed]="tint() === choice.colour"
              [style.background]="choice.colour"
              (click)="tint.set(choice.colour)"
            ></button>
          }
        </div>
        <div class="ways">
          @for (way of ways; track way.covering) {
            <button type="button" cuaButton (click)="lay(way.covering)">
              <cua-icon [of]="way.icon" [size]="20" /> {{ way.label }}
            </button>
          }
        </div>
      </div>
    </cua-popup>
  `,
  styles: `
    .sheet-desk {
      display: grid;
      gap: var(--space-4);
      width: min(22rem, calc(100vw - 44px));
    }
    h3 {
      margin: 0;
      font-size: var(--size-base);
    }
    .words {
      margin: 0;
      color: var(--ink-soft);
    }
    ul {
      display: grid;
      gap: var(--space-2);
      margin: 0 0 var(--space-3);
      padding: 0;
      list-style: none;
    }
    li {
      display: flex;
      align-items: center;
      gap: var(--space-5);
    }
    .name {
      flex: 1;
    }
    small {
      display: block;
      color: var(--ink-soft);
    }
    .swatch {
      width: 22px;
      height: 28px;
      border: 1px solid #8d8677;
    }
    .away {
      display: grid;
      place-items: center;
      width: var(--touch);
      height: var(--touch);
      border: 0;
      border-radius: var(--round);
      background: none;
      color: inherit;
      cursor: pointer;

      &:hover {
        background: var(--ground);
      }
    }
    .tints {
      display: flex;
      flex-wrap: wrap;
      gap: var(--space-2);
    }
    .tint {
      width: 34px;
      height: 44px;
      border: 1px solid #8d8677;
      border-radius: 2px;
      cursor: pointer;

      &[aria-pressed='true'] {
        outline: 3px solid var(--accent-ink, var(--focus));
        outline-offset: 1px;
      }
    }
    .ways {
      display: grid;
      gap: var(--space-3);

      .cua-button {
        justify-content: flex-start;
        gap: var(--space-5);
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CoverSheets {
  readonly board = input.required<Board>();
  readonly page = input.required<Id | null>();
  readonly done = output<Change[]>();

  protected readonly icons = { Trash2 };
  protected readonly ways = WAYS;
  protected readonly tints = [WHITE, ...TINTS];
  protected readonly tint = signal<string>(WHITE.colour);
  private readonly popup = viewChild.required(Popup);
  private readonly here = computed(() => this.board().pages.get(this.page() ?? '') ?? null);
  protected readonly sheets = computed(() => {
    const page = this.here();
    if (!page) return [];
    const counts = new Map<Id, number>();
    for (const { on } of itemsOn(page)) if (on) counts.set(on, (counts.get(on) ?? 0) + 1);
    return coversOn(page).map((cover) => {
      const count = counts.get(cover.id) ?? 0;
      const written =
        count === 0 ? 'empty' : count === 1 ? '1 thing on it' : `${count} things on it`;
      return {
        id: cover.id,
        tint: cover.tint,
        lifted: cover.lifted ?? false,
        name: PLACES[coverPlace(page, cover)],
        words: `${cover.lifted ? 'taken off' : 'on the page'}, ${written}`,
      };
    });
  });

  /** Opens beside what was pressed, or closes. */
  toggle(event: Event): void {
    this.popup().toggle(event);
  }

  /** Lifts what lies there; else lays what was lifted, and where there is nothing, an empty sheet. */
  flip(): void {
    const sheets = this.sheets();
    const laid = sheets.filter(({ lifted }) => !lifted);
    if (sheets.length === 0) return this.lay('whole');
    const meant = laid.length > 0 ? laid : sheets;
    this.lift(
      meant.map(({ id }) => id),
      laid.length > 0,
    );
  }

  protected lay(covering: Covering): void {
    const page = this.here();
    if (!page) return;
    this.popup().hide();
    this.done.emit(layCover(page, covering, this.tint()));
  }

  protected lift(ids: readonly Id[], lifted: boolean): void {
    const page = this.page();
    if (page) this.done.emit(liftCovers(this.board(), page, ids, lifted));
  }

  protected takeAway(id: Id): void {
    const page = this.page();
    if (page) this.done.emit([{ kind: 'items.remove', page, items: [id] }]);
  }
}
