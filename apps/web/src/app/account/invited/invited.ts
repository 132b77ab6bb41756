import {
  ChangeDetectionStrategy,
  Component,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { Router } from '@angular/router';
import { firstValueFrom } from 'rxjs';
import { Account } from '../../api/account';
import { AccountsApi } from '../../api/accounts-api';
import { Attempt } from '../../api/attempt';
import { AccountForm } from '../sign-in/account-form';
import type { NewAccount } from '../sign-in/account-form';
import { ProblemMessage } from '../../ui/problem/problem-message';

/** Where a tutor who was invited makes an account. */
@Component({
  selector: 'cua-invited',
  imports: [AccountForm, ProblemMessage],
  templateUrl: './invited.html',
  styleUrl: './invited.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class InvitedScreen {
  /** From the address. */
  readonly token = input.required<string>();
  private readonly accountsApi = inject(AccountsApi);
  private readonly account = inject(Account);
  private readonly router = inject(Router);
  /** Who sent it; `null` until that is known. */
  protected readonly by = signal<string | null>(null);
  protected readonly attempt = new Attempt();

  constructor() {
    effect(() => {
      const token = this.token();
      untracked(() => void this.look(token));
    });
  }

  protected async accept({ name, email, password }: NewAccount): Promise<void> {
    await this.attempt.make(async () => {
      await this.account.accept(this.token(), name, email, password);
      await this.router.navigateByUrl('/');
    });
  }

  private async look(token: string): Promise<void> {
    await this.attempt.make(async () =>
      this.by.set((await firstValueFrom(this.accountsApi.readInvitation({ token }))).by),
    );
  }
}
