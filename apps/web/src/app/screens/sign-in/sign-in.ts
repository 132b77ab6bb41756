import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { Router } from '@angular/router';
import { Account } from '../../api/account';
import { troubleOf } from '../../api/api';
import type { Trouble } from '../../api/api';
import { AccountForm } from './account-form';
import type { NewAccount } from './account-form';

/** The tutor's way in: signing in, or on the first visit making the account. */
@Component({
  selector: 'cua-sign-in',
  imports: [AccountForm],
  templateUrl: './sign-in.html',
  styleUrl: './sign-in.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SignInScreen {
  private readonly account = inject(Account);
  private readonly router = inject(Router);
  protected readonly state = signal<'looking' | 'sign-in' | 'set-up'>('looking');
  protected readonly demo = signal(false);
  protected readonly busy = signal(false);
  protected readonly trouble = signal<Trouble | null>(null);

  constructor() {
    void this.look();
  }

  protected async look(): Promise<void> {
    this.trouble.set(null);
    try {
      const me = await this.account.load();
      if (me.tutor) return void this.router.navigateByUrl('/');
      this.demo.set(me.demo);
      this.state.set(me.setUp ? 'sign-in' : 'set-up');
    } catch (error) {
      this.trouble.set(troubleOf(error));
    }
  }

  protected signIn(email: string, password: string): void {
    void this.go(() => this.account.signIn(email, password));
  }

  protected signInToDemo(): void {
    void this.go(() => this.account.signInToDemo());
  }

  protected setUp({ name, email, password }: NewAccount): void {
    void this.go(() => this.account.setUp(name, email, password));
  }

  private async go(how: () => Promise<void>): Promise<void> {
    this.busy.set(true);
    this.trouble.set(null);
    try {
      await how();
      await this.router.navigateByUrl('/');
    } catch (error) {
      this.trouble.set(troubleOf(error));
    } finally {
      this.busy.set(false);
    }
  }
}
