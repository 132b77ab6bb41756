import { ChangeDetectionStrategy, Component, inject, input, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { Account } from '../../api/account';
import { problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import { FirstFocus } from '../../ui/forms/first-focus';

/** Where a password is chosen anew, by the link or the code of a letter. */
@Component({
  selector: 'cua-reset',
  imports: [FirstFocus, RouterLink],
  templateUrl: './reset.html',
  styleUrl: '../sign-in/sign-in.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ResetScreen {
  /** From the address, where the letter had a link. */
  readonly token = input<string>();
  private readonly account = inject(Account);
  private readonly router = inject(Router);
  protected readonly busy = signal(false);
  protected readonly problem = signal<ProblemDetails | null>(null);

  protected async choose(form: HTMLFormElement): Promise<void> {
    const said = new FormData(form);
    const token = this.token() ?? String(said.get('code')).trim();
    this.busy.set(true);
    this.problem.set(null);
    try {
      await this.account.reset(token, String(said.get('password')));
      await this.router.navigateByUrl('/');
    } catch (error) {
      this.problem.set(problemOf(error));
    } finally {
      this.busy.set(false);
    }
  }
}
