import { resetPassword } from '@cuaderno/contract/routes/accounts';
import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { NonNullableFormBuilder } from '@angular/forms';
import type { AbstractControl } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import { Attempt } from '../../api/attempt';
import { Account } from '../../api/account';
import { Button } from '../../ui/button/button';
import { FirstFocus } from '../../ui/forms/first-focus';
import { fits, isWritten } from '../../ui/forms/fits';
import { FORM } from '../../ui/forms/form';
import { ProblemMessage } from '../../ui/problem/problem-message';

/** Needed where no link has it in its address. */
const code = isWritten('Copy the code from the letter.');

/** Where a password is chosen anew, by the link or the code of a letter. */
@Component({
  selector: 'cua-reset',
  imports: [Button, FirstFocus, FORM, ProblemMessage, RouterLink],
  templateUrl: './reset.html',
  styleUrl: '../sign-in/sign-in.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ResetScreen {
  /** From the address, where the letter had a link. */
  readonly token = input<string>();
  private readonly account = inject(Account);
  private readonly router = inject(Router);
  protected readonly form = inject(NonNullableFormBuilder).group({
    code: ['', (control: AbstractControl) => (this.token() ? null : code(control))],
    password: ['', fits(resetPassword.body.shape.password)],
  });
  protected readonly attempt = new Attempt();

  protected async choose(): Promise<void> {
    const { code, password } = this.form.getRawValue();
    const token = this.token() ?? code.trim();
    await this.attempt.make(async () => {
      await this.account.reset(token, password);
      await this.router.navigateByUrl('/');
    });
  }
}
