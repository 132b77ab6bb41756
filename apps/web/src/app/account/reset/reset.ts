import { resetPassword } from '@cuaderno/contract/routes/accounts';
import { ChangeDetectionStrategy, Component, inject, input, signal } from '@angular/core';
import { NonNullableFormBuilder } from '@angular/forms';
import type { AbstractControl } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import { Account } from '../../api/account';
import { problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import { FirstFocus } from '../../ui/forms/first-focus';
import { fits, isWritten } from '../../ui/forms/fits';
import { FORM } from '../../ui/forms/form';

/** Needed where no link has it in its address. */
const code = isWritten('Copy the code from the letter.');

/** Where a password is chosen anew, by the link or the code of a letter. */
@Component({
  selector: 'cua-reset',
  imports: [FirstFocus, FORM, RouterLink],
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
  protected readonly busy = signal(false);
  protected readonly problem = signal<ProblemDetails | null>(null);

  protected async choose(): Promise<void> {
    const { code, password } = this.form.getRawValue();
    const token = this.token() ?? code.trim();
    this.busy.set(true);
    this.problem.set(null);
    try {
      await this.account.reset(token, password);
      await this.router.navigateByUrl('/');
    } catch (error) {
      this.problem.set(problemOf(error));
    } finally {
      this.busy.set(false);
    }
  }
}
