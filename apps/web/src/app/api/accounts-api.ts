import type { Answer } from '@cuaderno/contract/route';
import {
  createInvitation,
  readAccount,
  readInvitation,
  readShortcuts,
  setShortcuts,
} from '@cuaderno/contract/routes/accounts';
import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import { Api } from './api';
import type { BodyOf } from './api';

/** What is asked of the server about the tutor’s account and invitations to others. */
@Injectable({ providedIn: 'root' })
export class AccountsApi {
  private readonly api = inject(Api);

  createInvitation(): Observable<Answer<typeof createInvitation>> {
    return this.api.call(createInvitation);
  }

  readAccount(): Observable<Answer<typeof readAccount>> {
    return this.api.call(readAccount);
  }

  readShortcuts(): Observable<Answer<typeof readShortcuts>> {
    return this.api.call(readShortcuts);
  }

  setShortcuts(body: BodyOf<typeof setShortcuts>): Observable<Answer<typeof setShortcuts>> {
    return this.api.call(setShortcuts, { body });
  }

  readInvitation(body: BodyOf<typeof readInvitation>): Observable<Answer<typeof readInvitation>> {
    return this.api.call(readInvitation, { body });
  }
}
