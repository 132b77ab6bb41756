import { changePassword } from '@cuaderno/contract/routes/accounts';
import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { FormsModule, NonNullableFormBuilder } from '@angular/forms';
import { Router } from '@angular/router';
import { Account } from '../../api/account';
import { Attempt } from '../../api/attempt';
import { Button } from '../../ui/button/button';
import { fits, isWritten } from '../../ui/forms/fits';
import { FORM } from '../../ui/forms/form';
import { LIST } from '../../ui/list/list';
import { DIALOG } from '../../ui/popup/dialog';
import { ProblemMessage } from '../../ui/problem/problem-message';
import { showTimesIn } from '../../ui/time/shown-zone';

/** What was done here last. */
type Done = 'password' | 'signed-out' | 'zone';
type AccountDetails = Awaited<ReturnType<Account['details']>>;

/** Stands for the clock of each machine in a list of time zones. */
const EACH_MACHINE = '';

/** The tutor's own account: its password, where it is signed in, and its end. */
@Component({
  selector: 'cua-account',
  imports: [Button, DIALOG, FORM, FormsModule, LIST, ProblemMessage],
  templateUrl: './account.html',
  styleUrl: './account.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AccountScreen {
  private readonly account = inject(Account);
  private readonly router = inject(Router);
  protected readonly details = signal<AccountDetails | null>(null);
  protected readonly attempt = new Attempt();
  /** What keeps the account from being deleted: it is said in the dialog that asks. */
  protected readonly deletionAttempt = new Attempt();
  protected readonly done = signal<Done | null>(null);
  protected readonly deleting = signal(false);
  protected readonly zones = [
    { zone: EACH_MACHINE, label: 'That of each machine' },
    ...Intl.supportedValuesOf('timeZone').map((zone) => ({ zone, label: zone.replace(/_/g, ' ') })),
  ];
  protected readonly passwords = inject(NonNullableFormBuilder).group({
    old: ['', isWritten('Write your current password.')],
    next: ['', fits(changePassword.body.shape.password)],
  });
  protected readonly deletion = inject(NonNullableFormBuilder).group({
    password: ['', isWritten('Write your password.')],
  });

  constructor() {
    void this.load();
  }

  protected async load(): Promise<void> {
    await this.attempt.make(async () => this.details.set(await this.account.details()));
  }

  protected async changePassword(): Promise<void> {
    const { old, next } = this.passwords.getRawValue();
    await this.try('password', () => this.account.changePassword(old, next));
    if (this.done() === 'password') this.passwords.reset();
  }

  protected async setZone(chosen: string): Promise<void> {
    const zone = chosen === EACH_MACHINE ? null : chosen;
    await this.try('zone', () => this.account.setZone(zone));
    if (this.done() !== 'zone') return;
    showTimesIn(zone);
    this.details.update((me) => me && { ...me, zone });
  }

  protected signOutEverywhere(): Promise<void> {
    return this.try('signed-out', () => this.account.signOutEverywhere());
  }

  protected askDeletion(): void {
    this.deletionAttempt.forget();
    this.deletion.reset();
    this.deleting.set(true);
  }

  protected async delete(): Promise<void> {
    await this.deletionAttempt.make(async () => {
      await this.account.delete(this.deletion.getRawValue().password);
      await this.router.navigateByUrl('/sign-in');
    });
  }

  private async try(what: Done, how: () => Promise<void>): Promise<void> {
    this.done.set(null);
    if (await this.attempt.make(how)) this.done.set(what);
  }
}
