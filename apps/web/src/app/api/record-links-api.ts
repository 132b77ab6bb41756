import type { Answer } from '@cuaderno/contract/route';
import {
  createRecordLink,
  listRecordLinks,
  withdrawRecordLink,
} from '@cuaderno/contract/routes/record-links';
import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import { Api } from './api';
import type { ParamOf, BodyOf, QueryOf } from './api';

/** What is asked of the server about links by which records are shared. */
@Injectable({ providedIn: 'root' })
export class RecordLinksApi {
  private readonly api = inject(Api);

  createRecordLink(
    course: ParamOf<typeof createRecordLink, 'course'>,
    body: BodyOf<typeof createRecordLink>,
  ): Observable<Answer<typeof createRecordLink>> {
    return this.api.call(createRecordLink, { params: { course }, body });
  }

  listRecordLinks(
    course: ParamOf<typeof listRecordLinks, 'course'>,
    query?: QueryOf<typeof listRecordLinks>,
  ): Observable<Answer<typeof listRecordLinks>> {
    return this.api.call(listRecordLinks, { params: { course }, query });
  }

  withdrawRecordLink(
    link: ParamOf<typeof withdrawRecordLink, 'link'>,
  ): Observable<Answer<typeof withdrawRecordLink>> {
    return this.api.call(withdrawRecordLink, { params: { link } });
  }
}
