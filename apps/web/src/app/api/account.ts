import type { Answer } from '@cuaderno/contract/route';
import {
  acceptInvitation,
  changePassword,
  deleteAccount,
  readAccount,
  readMe,
  requestPasswordReset,
  resetPassword,
  setUp,
  setZone,
  signIn,
  signInToDemo,
  signOut,
  signOutEverywhere,
} from '@cuaderno/contract/routes/accounts';
import { inject, Injectable } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import type { Observable } from 'rxjs';
import { Api } from './api';

/** Who is signed in on this machine. */
@Injectable({ providedIn: 'root' })
export class Account {
  private readonly api = inject(Api);
  private me: Promise<Answer<typeof readMe>> | null = null;
  /** Whether somebody signs out here, just now: then it is no surprise that they aren't signed in. */
  isLeaving = false;

  load(): Promise<Answer<typeof readMe>> {
    this.me ??= firstValueFrom(this.api.call(readMe)).catch((error: unknown) => {
      this.me = null;
      throw error;
    });
    return this.me;
  }

  setUp(name: string, email: string, password: string): Promise<void> {
    return this.change(this.api.call(setUp, { body: { name, email, password } }));
  }

  /** Makes the account of a tutor who was invited. */
  accept(token: string, name: string, email: string, password: string): Promise<void> {
    return this.change(this.api.call(acceptInvitation, { body: { token, name, email, password } }));
  }

  signIn(email: string, password: string): Promise<void> {
    return this.change(this.api.call(signIn, { body: { email, password } }));
  }

  signInToDemo(): Promise<void> {
    return this.change(this.api.call(signInToDemo));
  }

  async signOut(): Promise<void> {
    this.isLeaving = true;
    try {
      await this.change(this.api.call(signOut));
    } finally {
      this.isLeaving = false;
    }
  }

  /** Sends a letter with a link, if there is such an account; nobody is told whether there is. */
  async forgot(email: string): Promise<void> {
    await firstValueFrom(this.api.call(requestPasswordReset, { body: { email } }));
  }

  /** Sets the password anew, by the link or code of such a letter. */
  reset(token: string, password: string): Promise<void> {
    return this.change(this.api.call(resetPassword, { body: { token, password } }));
  }

  details(): Promise<Answer<typeof readAccount>> {
    return firstValueFrom(this.api.call(readAccount));
  }

  /** @param zone by whose clock times are said; `null` for that of each machine */
  setZone(zone: string | null): Promise<void> {
    return this.change(this.api.call(setZone, { body: { zone } }));
  }

  changePassword(old: string, password: string): Promise<void> {
    return this.change(this.api.call(changePassword, { body: { old, password } }));
  }

  signOutEverywhere(): Promise<void> {
    return this.change(this.api.call(signOutEverywhere));
  }

  /** Everything goes, for good. */
  async delete(password: string): Promise<void> {
    this.isLeaving = true;
    try {
      await this.change(this.api.call(deleteAccount, { body: { password } }));
    } finally {
      this.isLeaving = false;
    }
  }

  private async change(asked: Observable<null>): Promise<void> {
    await firstValueFrom(asked);
    this.me = null;
  }
}
