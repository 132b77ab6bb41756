import { changePassword } from '@cuaderno/contract/routes/accounts';
import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { NonNullableFormBuilder } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import { Account } from '../../api/account';
import { problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import { fits, isWritten } from '../../ui/forms/fits';
import { FORM } from '../../ui/forms/form';
import { DIALOG } from '../../ui/popup/dialog';
import { ProblemMessage } from '../../ui/problem/problem-message';

/** What was done here last. */
type Done = 'password' | 'signed-out';

/** The tutor's own account: its password, where it is signed in, and its end. */
@Component({
  selector: 'cua-account',
  imports: [DIALOG, FORM, ProblemMessage, RouterLink],
  templateUrl: './account.html',
  styleUrl: './account.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AccountScreen {
  private readonly account = inject(Account);
  private readonly router = inject(Router);
  protected readonly details = signal<{ name: string; email: string } | null>(null);
  protected readonly busy = signal(false);
  protected readonly done = signal<Done | null>(null);
  protected readonly deleting = signal(false);
  protected readonly problem = signal<ProblemDetails | null>(null);
  protected readonly passwords = inject(NonNullableFormBuilder).group({
    old: ['', isWritten('Write your current password.')],
    next: ['', fits(changePassword.body.shape.password)],
  });
  protected readonly deletion = inject(NonNullableFormBuilder).group({
    password: ['', isWritten('Write your password.')],
  });
  /** What keeps the account from being deleted: it is said in the dialog that asks. */
  protected readonly deletionProblem = signal<ProblemDetails | null>(null);

  constructor() {
    void this.load();
  }

  protected async load(): Promise<void> {
    this.problem.set(null);
    try {
      this.details.set(await this.account.details());
    } catch (error) {
      this.problem.set(problemOf(error));
    }
  }

  protected async changePassword(): Promise<void> {
    const { old, next } = this.passwords.getRawValue();
    await this.try('password', () => this.account.changePassword(old, next));
    if (this.done() === 'password') this.passwords.reset();
  }

  protected signOutEverywhere(): Promise<void> {
    return this.try('signed-out', () => this.account.signOutEverywhere());
  }

  protected askDeletion(): void {
    this.deletionProblem.set(null);
    this.deletion.reset();
    this.deleting.set(true);
  }

  protected async delete(): Promise<void> {
    this.busy.set(true);
    this.deletionProblem.set(null);
    try {
      await this.account.delete(this.deletion.getRawValue().password);
      await this.router.navigateByUrl('/sign-in');
    } catch (error) {
      this.deletionProblem.set(problemOf(error));
    } finally {
      this.busy.set(false);
    }
  }

  private async try(what: Done, how: () => Promise<void>): Promise<void> {
    this.busy.set(true);
    this.done.set(null);
    this.problem.set(null);
    try {
      await how();
      this.done.set(what);
    } catch (error) {
      this.problem.set(problemOf(error));
    } finally {
      this.busy.set(false);
    }
  }
}
