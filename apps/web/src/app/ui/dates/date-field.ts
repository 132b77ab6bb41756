import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  ElementRef,
  forwardRef,
  inject,
  input,
  signal,
  viewChild,
} from '@angular/core';
import { FormsModule, NG_VALUE_ACCESSOR } from '@angular/forms';
import type { ControlValueAccessor } from '@angular/forms';
import { CalendarDays, Clock } from 'lucide';
import type { IconNode } from 'lucide';
import { DatePicker } from 'primeng/datepicker';
import { Icon } from '../icons/icon';
import { followField } from '../popup/follow-field';
import { readDay, readMonth, readTime } from './read-date';

type DateUnit = 'day' | 'month' | 'time';

interface UnitOfDate {
  readonly format: string;
  readonly icon: IconNode;
  readonly chooses: string;
  /** @returns `null` where it can't be read */
  readonly read: (text: string, now: Date) => Date | null;
  readonly write: (at: Date) => string;
}

const two = (n: number): string => String(n).padStart(2, '0');

function atTime(time: string, now: Date): Date | null {
  const read = readTime(time);
  return read && new Date(now.getFullYear(), now.getMonth(), now.getDate(), read.hour, read.minute);
}

const monthOf = (at: Date): string => `${at.getFullYear()}-${two(at.getMonth() + 1)}`;

/** How PrimeNG writes each, what its button says, and what a form has of it. */
const UNITS: Readonly<Record<DateUnit, UnitOfDate>> = {
  day: {
    format: 'd M yy',
    icon: CalendarDays,
    chooses: 'Choose a day',
    read: (text, now) => readDay(text, now),
    write: (at) => `${monthOf(at)}-${two(at.getDate())}`,
  },
  month: {
    format: 'M yy',
    icon: CalendarDays,
    chooses: 'Choose a month',
    read: readMonth,
    write: monthOf,
  },
  time: {
    format: '',
    icon: Clock,
    chooses: 'Choose a time',
    read: atTime,
    write: (at) => `${two(at.getHours())}:${two(at.getMinutes())}`,
  },
};

/** The weekday on which a week begins in this browser's language, from 0 for Sunday; Monday where it doesn't say. */
function firstDayOfWeek(): number {
  const locale = new Intl.Locale(navigator.language) as Intl.Locale & {
    readonly weekInfo?: { readonly firstDay: number };
    readonly getWeekInfo?: () => { readonly firstDay: number };
  };
  const first = locale.getWeekInfo?.().firstDay ?? locale.weekInfo?.firstDay ?? 1;
  return first % 7;
}

/**
 * A day, a month or a time of day, typed as one writes it or chosen from PrimeNG's calendar. Its value is what the
 * timetable is written in, by no clock's zone: `2026-12-03`, `2026-12`, `16:30`; empty where nothing is chosen.
 */
@Component({
  selector: 'cua-date-field',
  imports: [DatePicker, FormsModule, Icon],
  template: `
    <p-datepicker
      appendTo="body"
      showIcon
      iconDisplay="button"
      hourFormat="24"
      fluid
      [showOnFocus]="false"
      [timeOnly]="of() === 'time'"
      [stepMinute]="5"
      [view]="of() === 'month' ? 'month' : 'date'"
      [dateFormat]="unit().format"
      [firstDayOfWeek]="firstDayOfWeek"
      [ariaLabel]="label()"
      [iconAriaLabel]="unit().chooses"
      [placeholder]="placeholder()"
      [minDate]="limits().first"
      [maxDate]="limits().last"
      [disabled]="disabled()"
      [ngModel]="at()"
      [ngModelOptions]="{ standalone: true }"
      [motionOptions]="{ disabled: true }"
      (ngModelChange)="choose($event)"
      (onBlur)="touched()"
      (onShow)="follow()"
      (onClose)="ended()"
    >
      <ng-template #triggericon><cua-icon [of]="unit().icon" [size]="18" /></ng-template>
    </p-datepicker>
  `,
  providers: [
    { provide: NG_VALUE_ACCESSOR, useExisting: forwardRef(() => DateField), multi: true },
  ],
  styleUrl: './date-field.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DateField implements ControlValueAccessor {
  readonly of = input.required<DateUnit>();
  /** What it is called. */
  readonly label = input.required<string>();
  readonly placeholder = input('');
  /** The first and the last that can be chosen, written as its value is. */
  readonly min = input<string>('');
  readonly max = input<string>('');

  protected readonly unit = computed(() => UNITS[this.of()]);
  protected readonly limits = computed(() => ({
    first: this.read(this.min()),
    last: this.read(this.max()),
  }));
  protected readonly at = signal<Date | null>(null);
  protected readonly disabled = signal(false);
  protected readonly firstDayOfWeek = firstDayOfWeek();
  protected touched = (): void => undefined;
  protected ended = (): void => undefined;
  private changed: (value: string) => void = () => undefined;
  private readonly picker = viewChild.required(DatePicker);
  private readonly field = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;

  constructor() {
    afterNextRender(() => {
      const picker = this.picker();
      // It reads nothing but its own way of writing; and it closes at each scroll, also at those that nobody made.
      picker.parseValueFromString = (text) => this.readTyped(text);
      picker.bindScrollListener = () => undefined;
      // What is pasted or spoken in counts as well: it hears keys alone.
      const typed = (): void => void (picker.isKeydown = true);
      this.field.addEventListener('input', typed, { capture: true });
    });
    inject(DestroyRef).onDestroy(() => this.ended());
  }

  writeValue(value: string | null): void {
    if ((value ?? '') !== this.value()) this.at.set(this.read(value ?? ''));
  }

  registerOnChange(changed: (value: string) => void): void {
    this.changed = changed;
  }

  registerOnTouched(touched: () => void): void {
    this.touched = touched;
  }

  setDisabledState(disabled: boolean): void {
    this.disabled.set(disabled);
  }

  protected choose(at: Date | null): void {
    this.at.set(at);
    this.changed(this.value());
  }

  protected follow(): void {
    this.ended();
    this.ended = followField(this.field, () => this.picker().alignOverlay());
  }

  private value(): string {
    const at = this.at();
    return at ? this.unit().write(at) : '';
  }

  private read(text: string): Date | null {
    return text === '' ? null : this.unit().read(text, new Date());
  }

  /** @throws where it can't be read: PrimeNG then has nothing chosen */
  private readTyped(text: string | null): Date | null {
    if (!text?.trim()) return null;
    const at = this.read(text);
    if (!at) throw new Error(`“${text}” can’t be read as a ${this.of()}.`);
    return at;
  }
}
