import { ChangeDetectionStrategy, Component, inject, input, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { Account } from '../../api/account';
import { Attempt } from '../../api/attempt';
import { Button } from '../../ui/button/button';
import { AccountForm } from './account-form';
import type { NewAccount } from './account-form';
import { SignInForm } from './sign-in-form';
import type { Credentials } from './sign-in-form';
import { ProblemMessage } from '../../ui/problem/problem-message';

/** The tutor's way in: signing in, or on the first visit making the account. */
@Component({
  selector: 'cua-sign-in',
  imports: [AccountForm, Button, ProblemMessage, RouterLink, SignInForm],
  templateUrl: './sign-in.html',
  styleUrl: './sign-in.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SignInScreen {
  /** Where somebody was on their way to, from the address. */
  readonly to = input<string>();
  private readonly account = inject(Account);
  private readonly router = inject(Router);
  protected readonly state = signal<'looking' | 'sign-in' | 'set-up'>('looking');
  protected readonly demo = signal(false);
  protected readonly attempt = new Attempt();

  constructor() {
    void this.look();
  }

  protected async look(): Promise<void> {
    await this.attempt.make(async () => {
      const me = await this.account.load();
      if (me.tutor) return void this.router.navigateByUrl(this.next());
      this.demo.set(me.demo);
      this.state.set(me.setUp ? 'sign-in' : 'set-up');
    });
  }

  protected signIn({ email, password }: Credentials): void {
    void this.go(() => this.account.signIn(email, password));
  }

  protected signInToDemo(): void {
    void this.go(() => this.account.signInToDemo());
  }

  protected setUp({ name, email, password }: NewAccount): void {
    void this.go(() => this.account.setUp(name, email, password));
  }

  /** An address of our own: a link that was made to lead elsewhere leads nowhere. */
  private next(): string {
    const to = this.to() ?? '/';
    return /^\/(?![/\\])/.test(to) ? to : '/';
  }

  private async go(how: () => Promise<void>): Promise<void> {
    await this.attempt.make(async () => {
      await how();
      await this.router.navigateByUrl(this.next());
    });
  }
}
