import type { Answer } from '@cuaderno/contract/route';
import { listHandouts, readHandoutPage } from '@cuaderno/contract/routes/handouts';
import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import { Api } from './api';
import type { ParamOf } from './api';

/** What is asked of the server about what students are given to look at. */
@Injectable({ providedIn: 'root' })
export class HandoutsApi {
  private readonly api = inject(Api);

  listHandouts(): Observable<Answer<typeof listHandouts>> {
    return this.api.call(listHandouts);
  }

  readHandoutPage(
    asset: ParamOf<typeof readHandoutPage, 'asset'>,
    page: ParamOf<typeof readHandoutPage, 'page'>,
  ): Observable<Answer<typeof readHandoutPage>> {
    return this.api.call(readHandoutPage, { params: { asset, page } });
  }
}
