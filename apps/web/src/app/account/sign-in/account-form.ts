import { setUp } from '@cuaderno/contract/routes/accounts';
import { ChangeDetectionStrategy, Component, inject, input, output } from '@angular/core';
import { NonNullableFormBuilder } from '@angular/forms';
import { Button } from '../../ui/button/button';
import { FirstFocus } from '../../ui/forms/first-focus';
import { fits } from '../../ui/forms/fits';
import { FORM } from '../../ui/forms/form';

/** What the server asks of each. */
const asked = setUp.body.shape;

/** What a tutor's account is made of. */
export interface NewAccount {
  readonly name: string;
  readonly email: string;
  readonly password: string;
}

/** Asks for what a tutor's account is made of. */
@Component({
  selector: 'cua-account-form',
  imports: [Button, FirstFocus, FORM],
  templateUrl: './account-form.html',
  styleUrl: './sign-in.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AccountForm {
  readonly busy = input(false);
  readonly made = output<NewAccount>();
  protected readonly form = inject(NonNullableFormBuilder).group({
    name: ['', fits(asked.name)],
    email: ['', fits(asked.email)],
    password: ['', fits(asked.password)],
  });
}
