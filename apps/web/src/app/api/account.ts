import { inject, Injectable } from '@angular/core';
import { Api } from './api';

export interface Me {
  readonly tutor: { readonly id: string; readonly name: string } | null;
  readonly setUp: boolean;
  readonly demo: boolean;
}

/** Who is signed in on this machine. */
@Injectable({ providedIn: 'root' })
export class Account {
  private readonly api = inject(Api);
  private me: Promise<Me> | null = null;
  /** Whether somebody signs out here, just now: then it is no surprise that they aren't signed in. */
  isLeaving = false;

  load(): Promise<Me> {
    this.me ??= this.api.get<Me>('/me').catch((error: unknown) => {
      this.me = null;
      throw error;
    });
    return this.me;
  }

  setUp(name: string, email: string, password: string): Promise<void> {
    return this.change('/set-up', { name, email, password });
  }

  /** Makes the account of a tutor who was invited. */
  accept(token: string, name: string, email: string, password: string): Promise<void> {
    return this.change('/invitations/accept', { token, name, email, password });
  }

  signIn(email: string, password: string): Promise<void> {
    return this.change('/sign-in', { email, password });
  }

  signInToDemo(): Promise<void> {
    return this.change('/demo/sign-in');
  }

  async signOut(): Promise<void> {
    this.isLeaving = true;
    try {
      await this.change('/sign-out');
    } finally {
      this.isLeaving = false;
    }
  }

  /** Sends a letter with a link, if there is such an account; nobody is told whether there is. */
  forgot(email: string): Promise<void> {
    return this.api.post('/password/forgotten', { email });
  }

  /** Sets the password anew, by the link or code of such a letter. */
  reset(token: string, password: string): Promise<void> {
    return this.change('/password/reset', { token, password });
  }

  details(): Promise<{ name: string; email: string }> {
    return this.api.get('/account');
  }

  changePassword(old: string, password: string): Promise<void> {
    return this.change('/account/password', { old, password });
  }

  signOutEverywhere(): Promise<void> {
    return this.change('/sign-out/everywhere');
  }

  /** Everything goes, for good. */
  async delete(password: string): Promise<void> {
    this.isLeaving = true;
    try {
      await this.change('/account/delete', { password });
    } finally {
      this.isLeaving = false;
    }
  }

  private async change(path: string, body: unknown = {}): Promise<void> {
    await this.api.post(path, body);
    this.me = null;
  }
}
