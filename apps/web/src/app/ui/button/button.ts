import { Directive, ElementRef, inject, input } from '@angular/core';

/**
 * What a button is among others: `strong` is what one came for, `quiet` is there without asking to be pressed,
 * `closing` ends or removes something.
 */
export type ButtonKind = 'plain' | 'strong' | 'quiet' | 'closing';

/**
 * The one button of all screens, students’ too, which load no component library. On a link or a label it looks the same.
 */
@Directive({
  selector: '[cuaButton]',
  host: {
    class: 'cua-button',
    '[class.strong]': "kind() === 'strong'",
    '[class.quiet]': "kind() === 'quiet'",
    '[class.closing]': "kind() === 'closing'",
  },
})
export class Button {
  readonly kind = input<ButtonKind, ButtonKind | ''>('plain', {
    alias: 'cuaButton',
    transform: (kind) => kind || 'plain',
  });

  constructor() {
    const { nativeElement: element } = inject<ElementRef<HTMLElement>>(ElementRef);
    // A button in a form that isn't said to send it doesn't.
    if (element instanceof HTMLButtonElement && !element.hasAttribute('type'))
      element.type = 'button';
  }
}
