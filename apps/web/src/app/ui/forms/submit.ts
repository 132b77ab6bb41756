import { Directive, ElementRef, inject, output } from '@angular/core';
import { FormGroupDirective } from '@angular/forms';

/** Sends a form that is as it should be; otherwise each field says what is wrong, and the first has the focus. */
@Directive({ selector: 'form[cuaSubmit]', host: { '(submit)': 'send()' } })
export class Submit {
  readonly cuaSubmit = output();
  private readonly group = inject(FormGroupDirective);
  private readonly element = inject<ElementRef<HTMLFormElement>>(ElementRef).nativeElement;

  protected send(): void {
    const { form } = this.group;
    if (form.valid) return this.cuaSubmit.emit();
    form.markAllAsTouched();
    const control = this.element.querySelector<HTMLElement>('[formControlName].ng-invalid');
    // The field itself, or that which is within one of PrimeNG's.
    const field = control?.matches('input, textarea')
      ? control
      : control?.querySelector('[tabindex]');
    if (field instanceof HTMLElement) field.focus();
  }
}
