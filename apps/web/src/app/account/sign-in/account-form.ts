import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { FirstFocus } from '../../ui/forms/first-focus';

/** What a tutor's account is made of. */
export interface NewAccount {
  readonly name: string;
  readonly email: string;
  readonly password: string;
}

/** Asks for what a tutor's account is made of. */
@Component({
  selector: 'cua-account-form',
  imports: [FirstFocus],
  templateUrl: './account-form.html',
  styleUrl: './sign-in.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AccountForm {
  readonly busy = input(false);
  readonly made = output<NewAccount>();
}
