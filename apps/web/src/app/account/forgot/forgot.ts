import { requestPasswordReset } from '@cuaderno/contract/routes/accounts';
import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { NonNullableFormBuilder } from '@angular/forms';
import { RouterLink } from '@angular/router';
import { Attempt } from '../../api/attempt';
import { Account } from '../../api/account';
import { Button } from '../../ui/button/button';
import { FirstFocus } from '../../ui/forms/first-focus';
import { fits } from '../../ui/forms/fits';
import { FORM } from '../../ui/forms/form';
import { ProblemMessage } from '../../ui/problem/problem-message';

/** For a tutor who forgot their password: a letter is sent with a link to choose a new one. */
@Component({
  selector: 'cua-forgot',
  imports: [Button, FirstFocus, FORM, ProblemMessage, RouterLink],
  templateUrl: './forgot.html',
  styleUrl: '../sign-in/sign-in.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ForgotScreen {
  private readonly account = inject(Account);
  /** The e-mail that a letter was sent to, if there is such an account. */
  protected readonly sentTo = signal<string | null>(null);
  protected readonly form = inject(NonNullableFormBuilder).group({
    email: ['', fits(requestPasswordReset.body.shape.email)],
  });
  protected readonly attempt = new Attempt();

  protected async send(email: string): Promise<void> {
    await this.attempt.make(async () => {
      await this.account.forgot(email);
      this.sentTo.set(email);
    });
  }
}
