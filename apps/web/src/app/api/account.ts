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

  signOut(): Promise<void> {
    return this.change('/sign-out');
  }

  private async change(path: string, body: unknown = {}): Promise<void> {
    await this.api.post(path, body);
    this.me = null;
  }
}
