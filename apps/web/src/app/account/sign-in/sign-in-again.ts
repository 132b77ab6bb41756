import { ChangeDetectionStrategy, Component, DestroyRef, inject, signal } from '@angular/core';
import { Account } from '../../api/account';
import { Attempt } from '../../api/attempt';
import { SignedOut } from '../../api/signed-out';
import { Button } from '../../ui/button/button';
import { DIALOG } from '../../ui/popup/dialog';
import { SignInForm } from './sign-in-form';
import type { Credentials } from './sign-in-form';
import { ProblemMessage } from '../../ui/problem/problem-message';

/**
 * Lies over a tutor's screen when their session has ended: they sign in again and go on where they were. What stands
 * on the screen under it stays.
 */
@Component({
  selector: 'cua-sign-in-again',
  imports: [Button, DIALOG, ProblemMessage, SignInForm],
  template: `
    @if (asked()) {
      <cua-dialog header="Sign in again" [closable]="false">
        <div class="form">
          <p class="note">
            You were signed out. What is on this screen stays, and you can go on with it.
          </p>
          <cua-sign-in-form [busy]="attempt.busy()" (signedIn)="signIn($event)">
            <cua-problem [of]="attempt.problem()" />
            <p class="note">
              <a href="/forgot-password" target="_blank">Forgot your password?</a>
            </p>
          </cua-sign-in-form>
          @if (demo()) {
            <button type="button" cuaButton [disabled]="attempt.busy()" (click)="signInToDemo()">
              Continue as Maren Solheim
            </button>
          }
        </div>
      </cua-dialog>
    }
  `,
  styleUrl: '../../ui/layouts/_form.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SignInAgain {
  private readonly account = inject(Account);
  protected readonly asked = signal(false);
  protected readonly attempt = new Attempt();
  protected readonly demo = signal(false);
  private tutor: string | null = null;
  private done: (isSignedIn: boolean) => void = () => undefined;

  constructor() {
    const signedOut = inject(SignedOut);
    void this.account.load().then(({ tutor, demo }) => {
      this.tutor = tutor?.id ?? null;
      this.demo.set(demo);
    });
    const stop = signedOut.answerWith(() => {
      // Anyone who signs out themselves is on their way already.
      if (this.account.isLeaving) return Promise.resolve(false);
      this.attempt.forget();
      this.asked.set(true);
      return new Promise((resolve) => (this.done = resolve));
    });
    inject(DestroyRef).onDestroy(() => {
      stop();
      this.done(false);
    });
  }

  protected signIn({ email, password }: Credentials): void {
    void this.go(() => this.account.signIn(email, password));
  }

  protected signInToDemo(): void {
    void this.go(() => this.account.signInToDemo());
  }

  private async go(how: () => Promise<void>): Promise<void> {
    await this.attempt.make(async () => {
      await how();
      const { tutor } = await this.account.load();
      // Somebody else has another day before them.
      if (tutor?.id !== this.tutor) return location.assign('/');
      this.asked.set(false);
      this.done(true);
    });
  }
}
