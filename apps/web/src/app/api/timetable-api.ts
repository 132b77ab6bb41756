import type { Answer } from '@cuaderno/contract/route';
import {
  changeDate,
  downloadTimetable,
  endPlan,
  importCalendar,
  moveSeries,
  planLesson,
  readTimetable,
  restoreDate,
} from '@cuaderno/contract/routes/timetable';
import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import { Api } from './api';
import type { ParamOf, BodyOf, QueryOf, Download } from './api';

/** What is asked of the server about planned lessons. */
@Injectable({ providedIn: 'root' })
export class TimetableApi {
  private readonly api = inject(Api);

  changeDate(
    plan: ParamOf<typeof changeDate, 'plan'>,
    body: BodyOf<typeof changeDate>,
  ): Observable<Answer<typeof changeDate>> {
    return this.api.call(changeDate, { params: { plan }, body });
  }

  downloadTimetable(): Observable<Download> {
    return this.api.download(downloadTimetable);
  }

  endPlan(
    plan: ParamOf<typeof endPlan, 'plan'>,
    body: BodyOf<typeof endPlan>,
  ): Observable<Answer<typeof endPlan>> {
    return this.api.call(endPlan, { params: { plan }, body });
  }

  moveSeries(
    plan: ParamOf<typeof moveSeries, 'plan'>,
    body: BodyOf<typeof moveSeries>,
  ): Observable<Answer<typeof moveSeries>> {
    return this.api.call(moveSeries, { params: { plan }, body });
  }

  importCalendar(
    course: ParamOf<typeof importCalendar, 'course'>,
    body: BodyOf<typeof importCalendar>,
    query: QueryOf<typeof importCalendar>,
  ): Observable<Answer<typeof importCalendar>> {
    return this.api.call(importCalendar, { params: { course }, query, body });
  }

  planLesson(
    course: ParamOf<typeof planLesson, 'course'>,
    body: BodyOf<typeof planLesson>,
  ): Observable<Answer<typeof planLesson>> {
    return this.api.call(planLesson, { params: { course }, body });
  }

  readTimetable(query: QueryOf<typeof readTimetable>): Observable<Answer<typeof readTimetable>> {
    return this.api.call(readTimetable, { query });
  }

  restoreDate(
    plan: ParamOf<typeof restoreDate, 'plan'>,
    body: BodyOf<typeof restoreDate>,
  ): Observable<Answer<typeof restoreDate>> {
    return this.api.call(restoreDate, { params: { plan }, body });
  }
}
