import type { Answer } from '@cuaderno/contract/route';
import { listLetters, removeLetter } from '@cuaderno/contract/routes/mailbox';
import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import { Api } from './api';
import type { ParamOf } from './api';

/** What is asked of the server about letters that would have gone out by mail. */
@Injectable({ providedIn: 'root' })
export class MailboxApi {
  private readonly api = inject(Api);

  listLetters(): Observable<Answer<typeof listLetters>> {
    return this.api.call(listLetters);
  }

  removeLetter(
    letter: ParamOf<typeof removeLetter, 'letter'>,
  ): Observable<Answer<typeof removeLetter>> {
    return this.api.call(removeLetter, { params: { letter } });
  }
}
