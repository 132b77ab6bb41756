import {
  ChangeDetectionStrategy,
  Component,
  contentChild,
  effect,
  ElementRef,
  input,
} from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { NgControl } from '@angular/forms';
import type { AbstractControl } from '@angular/forms';
import { map, startWith, switchMap } from 'rxjs';
import { focusTarget } from './focus-target';

let fields = 0;

/**
 * A field of a form: its name above it, and what is wrong with it below, once somebody has been there or has sent the
 * form. In it stands an `input` or the like with a `formControl` or a `formControlName`.
 */
@Component({
  selector: 'cua-field',
  template: `
    <!-- eslint-disable-next-line @angular-eslint/template/label-has-associated-control -- what is put into it -->
    <label class="field">{{ label() }} <ng-content /></label>
    @if (wrong(); as words) {
      <p class="wrong" role="alert" [id]="id">{{ words }}</p>
    }
  `,
  styleUrl: './field.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Field {
  readonly label = input.required<string>();
  protected readonly id = `cua-field-${++fields}`;
  private readonly control = contentChild.required(NgControl);
  private readonly element = contentChild.required(NgControl, { read: ElementRef });
  /** What is wrong, in words; `null` while nothing is, or nothing has to be said of it yet. */
  protected readonly wrong = toSignal(
    toObservable(this.control).pipe(
      switchMap(({ control }) =>
        control!.events.pipe(
          startWith(null),
          map(() => wordsOf(control!)),
        ),
      ),
    ),
    { initialValue: null },
  );

  constructor() {
    effect(() => {
      const field = focusTarget(this.element().nativeElement as HTMLElement);
      if (this.wrong() === null) {
        field.removeAttribute('aria-invalid');
        field.removeAttribute('aria-describedby');
      } else {
        field.setAttribute('aria-invalid', 'true');
        field.setAttribute('aria-describedby', this.id);
      }
    });
  }
}

function wordsOf({ touched, invalid, errors }: AbstractControl): string | null {
  if (!touched || !invalid) return null;
  const words: unknown = errors?.['words'];
  return typeof words === 'string' ? words : 'Please fill this in.';
}
