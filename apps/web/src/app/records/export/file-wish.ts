import { ChangeDetectionStrategy, Component, input, model } from '@angular/core';
import { CheckboxModule } from 'primeng/checkbox';
import { FormsModule } from '@angular/forms';
import type { BoardFileWish } from '@cuaderno/formats/board-file';

const INKS: readonly { ink: BoardFileWish['ink']; label: string; words: string }[] = [
  { ink: 'all', label: 'All of it', words: 'also what was written in lessons' },
  { ink: 'prepared', label: 'What was prepared', words: 'outside of lessons' },
  { ink: 'none', label: 'Nothing', words: 'the bare sheets and what lies on them' },
];

/** Asks how much of what was written goes into a board file, and whether with names. */
@Component({
  selector: 'cua-file-wish',
  imports: [CheckboxModule, FormsModule],
  template: `
    <div class="wishes">
      <fieldset [disabled]="busy()">
        <legend>Of what was written</legend>
        @for (one of inks; track one.ink) {
          <label>
            <input
              type="radio"
              name="file-ink"
              [value]="one.ink"
              [ngModel]="ink()"
              (ngModelChange)="ink.set($event)"
            />
            <span
              >{{ one.label }} <span class="words">{{ one.words }}</span></span
            >
          </label>
        }
      </fieldset>
      @if (ink() !== 'none') {
        <label>
          <p-checkbox
            [binary]="true"
            [ngModel]="named()"
            (ngModelChange)="named.set($event)"
            [disabled]="busy()"
          />
          <span>With the names of who wrote it</span>
        </label>
      }
    </div>
  `,
  styleUrl: './save-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FileWish {
  readonly ink = model.required<BoardFileWish['ink']>();
  readonly named = model.required<boolean>();
  readonly busy = input(false);
  protected readonly inks = INKS;
}
