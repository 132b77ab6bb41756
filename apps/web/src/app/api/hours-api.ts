import type { Answer } from '@cuaderno/contract/route';
import {
  correctHours,
  downloadHoursCalendar,
  downloadHoursTable,
  listHours,
} from '@cuaderno/contract/routes/hours';
import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import { Api } from './api';
import type { ParamOf, BodyOf, QueryOf, Download } from './api';

/** What is asked of the server about hours of lessons that were held. */
@Injectable({ providedIn: 'root' })
export class HoursApi {
  private readonly api = inject(Api);

  correctHours(
    lesson: ParamOf<typeof correctHours, 'lesson'>,
    body: BodyOf<typeof correctHours>,
  ): Observable<Answer<typeof correctHours>> {
    return this.api.call(correctHours, { params: { lesson }, body });
  }

  downloadHoursCalendar(query: QueryOf<typeof downloadHoursCalendar>): Observable<Download> {
    return this.api.download(downloadHoursCalendar, { query });
  }

  downloadHoursTable(query: QueryOf<typeof downloadHoursTable>): Observable<Download> {
    return this.api.download(downloadHoursTable, { query });
  }

  listHours(query: QueryOf<typeof listHours>): Observable<Answer<typeof listHours>> {
    return this.api.call(listHours, { query });
  }
}
