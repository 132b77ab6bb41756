import { Injectable } from '@angular/core';
import { Subject } from 'rxjs';

/**
 * What happens when the server doesn't know any more who is signed in: the session has ended, here or elsewhere. Where
 * somebody can be asked to sign in again, what was to be done waits for that, and is done then.
 */
@Injectable({ providedIn: 'root' })
export class SignedOut {
  private asks: (() => Promise<boolean>) | null = null;
  private asked: Promise<boolean> | null = null;

  /**
   * Says how somebody is asked to sign in again, as long as what is returned isn't called.
   * @param ask resolves to whether they did
   */
  answerWith(ask: () => Promise<boolean>): () => void {
    this.asks = ask;
    return () => {
      if (this.asks === ask) this.asks = null;
    };
  }

  /** Somebody has signed in again. */
  readonly again = new Subject<void>();
  /** How often. */
  times = 0;

  /**
   * Resolves to whether they are signed in again; however many ask at once, they are asked once.
   * @param since how often they had, when what was to be done began: it may have been done since
   */
  signedInAgain(since: number): Promise<boolean> {
    if (this.times > since) return Promise.resolve(true);
    if (!this.asks) return Promise.resolve(false);
    this.asked ??= this.asks()
      .then((isSignedIn) => {
        if (isSignedIn) {
          this.times++;
          this.again.next();
        }
        return isSignedIn;
      })
      .finally(() => (this.asked = null));
    return this.asked;
  }
}
