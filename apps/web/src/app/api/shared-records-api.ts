import type { Answer } from '@cuaderno/contract/route';
import {
  downloadSharedPdf,
  listSharedRecords,
  readSharedRecord,
  readSharedState,
} from '@cuaderno/contract/routes/shared-records';
import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import { Api } from './api';
import type { ParamOf, QueryOf, Download } from './api';

/** What is asked of the server about records that are shared by a link. */
@Injectable({ providedIn: 'root' })
export class SharedRecordsApi {
  private readonly api = inject(Api);

  downloadSharedPdf(
    token: ParamOf<typeof downloadSharedPdf, 'token'>,
    lesson: ParamOf<typeof downloadSharedPdf, 'lesson'>,
    query?: QueryOf<typeof downloadSharedPdf>,
  ): Observable<Download> {
    return this.api.download(downloadSharedPdf, { params: { token, lesson }, query });
  }

  listSharedRecords(
    token: ParamOf<typeof listSharedRecords, 'token'>,
  ): Observable<Answer<typeof listSharedRecords>> {
    return this.api.call(listSharedRecords, { params: { token } });
  }

  readSharedRecord(
    token: ParamOf<typeof readSharedRecord, 'token'>,
    lesson: ParamOf<typeof readSharedRecord, 'lesson'>,
  ): Observable<Answer<typeof readSharedRecord>> {
    return this.api.call(readSharedRecord, { params: { token, lesson } });
  }

  readSharedState(
    token: ParamOf<typeof readSharedState, 'token'>,
  ): Observable<Answer<typeof readSharedState>> {
    return this.api.call(readSharedState, { params: { token } });
  }
}
