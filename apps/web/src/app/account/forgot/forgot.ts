import { requestPasswordReset } from '@cuaderno/contract/routes/accounts';
import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { NonNullableFormBuilder } from '@angular/forms';
import { RouterLink } from '@angular/router';
import { Account } from '../../api/account';
import { problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import { FirstFocus } from '../../ui/forms/first-focus';
import { fits } from '../../ui/forms/fits';
import { FORM } from '../../ui/forms/form';

/** For a tutor who forgot their password: a letter is sent with a link to choose a new one. */
@Component({
  selector: 'cua-forgot',
  imports: [FirstFocus, FORM, RouterLink],
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
  protected readonly busy = signal(false);
  protected readonly problem = signal<ProblemDetails | null>(null);

  protected async send(email: string): Promise<void> {
    this.busy.set(true);
    this.problem.set(null);
    try {
      await this.account.forgot(email);
      this.sentTo.set(email);
    } catch (error) {
      this.problem.set(problemOf(error));
    } finally {
      this.busy.set(false);
    }
  }
}
