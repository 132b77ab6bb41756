import {
  afterNextRender,
  booleanAttribute,
  Directive,
  ElementRef,
  inject,
  input,
} from '@angular/core';

/**
 * The field that one begins with: the focus goes there when its screen has come. The attribute `autofocus` does that
 * only for the first screen of a window, not for one that is gone to.
 */
@Directive({ selector: 'input[cuaFirstFocus]' })
export class FirstFocus {
  /** Whether it is this one. */
  readonly cuaFirstFocus = input(true, { transform: booleanAttribute });

  constructor() {
    const field = inject<ElementRef<HTMLInputElement>>(ElementRef).nativeElement;
    afterNextRender(() => {
      if (this.cuaFirstFocus()) field.focus();
    });
  }
}
