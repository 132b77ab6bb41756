import { Directive, ElementRef, inject, output } from '@angular/core';
import { FormGroupDirective } from '@angular/forms';
import { focusTarget } from './focus-target';

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
    if (control) focusTarget(control).focus();
  }
}
