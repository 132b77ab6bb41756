import { ChangeDetectionStrategy, Component, computed, signal } from '@angular/core';
import {
  decimal,
  hasMarks,
  MAX_NUMBER,
  MAX_TICKS,
  numberWords,
  readNumber,
} from '@cuaderno/core/kinds';
import type { Marking, NumberLabels, NumberLineSpec } from '@cuaderno/core/kinds';
import { RulerDimensionLine } from 'lucide';
import type { IconNode } from 'lucide';
import { Icon } from '../../../ui/icons/icon';
import { Popup } from '../../../ui/popup/popup';
import { Tip } from '../../../ui/tip/tip';
import { KindOptions } from '../kind';
import { INTERVAL, JUMP, OPEN_INTERVAL, OPEN_POINT, POINT } from './icons';
import { marking, numberLineStyle } from './style';
import type { NumberLineStyle } from './style';

type NumberField = 'from' | 'to' | 'step';

const FIELDS: readonly { field: NumberField; label: string }[] = [
  { field: 'from', label: 'From' },
  { field: 'to', label: 'To' },
  { field: 'step', label: 'Step' },
];

const LABELS: readonly { labels: NumberLabels; label: string }[] = [
  { labels: 'whole', label: 'Whole numbers' },
  { labels: 'decimal', label: 'Decimals' },
  { labels: 'fraction', label: 'Fractions' },
  { labels: 'none', label: 'No numbers' },
];

const MARKINGS: readonly {
  marking: Marking | null;
  label: string;
  title: string;
  icon: IconNode;
}[] = [
  { marking: null, label: 'New line', title: 'Draw where it is to lie', icon: RulerDimensionLine },
  {
    ...{ marking: 'point', label: 'Point', icon: POINT },
    title: 'Touch a tick; touch it again to take it away',
  },
  {
    ...{ marking: 'open-point', label: 'Open point', icon: OPEN_POINT },
    title: 'A point that doesn’t belong to it',
  },
  { marking: 'jump', label: 'Jump', title: 'Draw from tick to tick', icon: JUMP },
  { marking: 'interval', label: 'Interval', title: 'Draw from tick to tick', icon: INTERVAL },
  {
    ...{ marking: 'open-interval', label: 'Open interval', icon: OPEN_INTERVAL },
    title: 'Its ends don’t belong to it',
  },
];

/** What a number line goes from and to, in which steps, and what its tool marks on one. */
@Component({
  selector: 'cua-number-line-options',
  imports: [Icon, Popup, Tip],
  template: `
    <div class="group" role="group" aria-label="Number line">
      @if (items().length === 0) {
        <div class="markings" role="group" aria-label="What the tool does">
          @for (choice of markings; track choice.label) {
            <button
              type="button"
              [attr.aria-label]="choice.label"
              [cuaTip]="choice.label + '. ' + choice.title"
              [attr.aria-pressed]="marking() === choice.marking"
              (click)="marking.set(choice.marking)"
            >
              <cua-icon [of]="choice.icon" [size]="24" />
            </button>
          }
        </div>
      }
      @if (item() !== null || (items().length === 0 && marking() === null)) {
        <button
          type="button"
          class="more"
          aria-haspopup="dialog"
          cuaTip="From which number to which, and in which steps"
          (click)="numbers.toggle($event)"
        >
          {{ shown('from') }} to {{ shown('to') }} …
        </button>
        <cua-popup #numbers label="Numbers">
          <div class="fields">
            @for (one of fields; track one.field) {
              <label>
                {{ one.label }}
                <input
                  #field
                  type="text"
                  autocomplete="off"
                  [value]="shown(one.field)"
                  [attr.aria-invalid]="problem()?.field === one.field || null"
                  (keydown)="$event.stopPropagation()"
                  (change)="choose(one.field, field.value)"
                />
              </label>
            }
          </div>
          @if (problem(); as wrong) {
            <p role="alert">{{ wrong.words }}</p>
          }
          <select
            #labels
            aria-label="Numbers at the ticks"
            [value]="style().labels"
            (change)="set({ labels: $any(labels.value) })"
          >
            @for (choice of labelChoices; track choice.labels) {
              <option [value]="choice.labels" [selected]="choice.labels === style().labels">
                {{ choice.label }}
              </option>
            }
          </select>
        </cua-popup>
      }
      @if (hasMarks()) {
        <button type="button" class="clear" (click)="clear()">Clear the line</button>
      }
    </div>
  `,
  styleUrl: './options.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NumberLineOptions extends KindOptions<NumberLineSpec> {
  /** The one that is chosen, alone: what would be right for one may be none for another. */
  protected readonly item = computed(() => (this.items().length === 1 ? this.items()[0]! : null));

  protected readonly fields = FIELDS;
  protected readonly labelChoices = LABELS;
  protected readonly markings = MARKINGS;
  protected readonly marking = marking;
  protected readonly style = computed<NumberLineStyle>(
    () => this.item() ?? numberLineStyle.value(),
  );
  protected readonly hasMarks = computed(() => {
    const line = this.item();
    return line !== null && hasMarks(line);
  });
  /** What was typed and can't be. */
  protected readonly problem = signal<{
    readonly field: NumberField;
    readonly words: string;
  } | null>(null);

  protected shown(field: NumberField): string {
    const style = this.style();
    return numberWords(style[field], style.labels);
  }

  protected choose(field: NumberField, text: string): void {
    const value = readNumber(text);
    const words =
      value === null ? 'Write a number such as −5, 0.25 or 1/3.' : this.wrong(field, value);
    this.problem.set(words === null ? null : { field, words });
    if (words === null) this.set({ [field]: value! });
  }

  /** Why a number can't be in a field; `null` where it can. */
  private wrong(field: NumberField, value: number): string | null {
    const { from, to, step }: NumberLineStyle = { ...this.style(), [field]: value };
    if (Math.abs(value) > MAX_NUMBER) return `Numbers go up to ${decimal(MAX_NUMBER)}.`;
    if (from >= to) return 'The line has to end at a larger number than it begins.';
    if (step <= 0) return 'The step has to be larger than 0.';
    if (step > to - from) return 'The step is longer than the line.';
    if ((to - from) / step > MAX_TICKS) return `That would be more than ${MAX_TICKS} ticks.`;
    return null;
  }

  protected set(to: Partial<NumberLineStyle>): void {
    if (this.item() === null) numberLineStyle.set(to);
    else this.change()(() => to);
  }

  protected clear(): void {
    this.change()(() => ({ points: [], jumps: [], intervals: [] }));
  }
}
