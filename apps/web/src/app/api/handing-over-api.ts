import type { Answer } from '@cuaderno/contract/route';
import { handOver, listHandOvers, takeBackHandOver } from '@cuaderno/contract/routes/handing-over';
import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import { Api } from './api';
import type { ParamOf, BodyOf } from './api';

/** What is asked of the server about files that are handed over to students. */
@Injectable({ providedIn: 'root' })
export class HandingOverApi {
  private readonly api = inject(Api);

  handOver(
    course: ParamOf<typeof handOver, 'course'>,
    body: BodyOf<typeof handOver>,
  ): Observable<Answer<typeof handOver>> {
    return this.api.call(handOver, { params: { course }, body });
  }

  listHandOvers(
    course: ParamOf<typeof listHandOvers, 'course'>,
  ): Observable<Answer<typeof listHandOvers>> {
    return this.api.call(listHandOvers, { params: { course } });
  }

  takeBackHandOver(
    id: ParamOf<typeof takeBackHandOver, 'id'>,
  ): Observable<Answer<typeof takeBackHandOver>> {
    return this.api.call(takeBackHandOver, { params: { id } });
  }
}
