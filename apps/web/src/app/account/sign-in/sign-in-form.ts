import { ChangeDetectionStrategy, Component, inject, input, output } from '@angular/core';
import { NonNullableFormBuilder } from '@angular/forms';
import { Button } from '../../ui/button/button';
import { FirstFocus } from '../../ui/forms/first-focus';
import { isWritten } from '../../ui/forms/fits';
import { FORM } from '../../ui/forms/form';

/** With what somebody signs in. */
export interface Credentials {
  readonly email: string;
  readonly password: string;
}

/** Asks for e-mail and password. What is to be said above the button is put into it. */
@Component({
  selector: 'cua-sign-in-form',
  imports: [Button, FirstFocus, FORM],
  template: `
    <form [formGroup]="form" (cuaSubmit)="signedIn.emit(form.getRawValue())">
      <!-- Over a screen, in a dialog, the focus goes to what asks for it here. -->
      <cua-field label="E-mail">
        <input
          type="email"
          name="email"
          autocomplete="username"
          formControlName="email"
          required
          autofocus
          cuaFirstFocus
        />
      </cua-field>
      <cua-field label="Password">
        <input
          type="password"
          name="password"
          autocomplete="current-password"
          formControlName="password"
          required
        />
      </cua-field>
      <ng-content />
      <button type="submit" cuaButton="strong" [disabled]="busy()">Sign in</button>
    </form>
  `,
  styleUrl: './sign-in-form.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SignInForm {
  readonly busy = input(false);
  readonly signedIn = output<Credentials>();
  protected readonly form = inject(NonNullableFormBuilder).group({
    email: ['', isWritten('Write your e-mail.')],
    password: ['', isWritten('Write your password.')],
  });
}
