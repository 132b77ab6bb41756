import type { Answer } from '@cuaderno/contract/route';
import {
  describeCourseArchive,
  describeStudentArchive,
  downloadCourseArchive,
  downloadStudentArchive,
} from '@cuaderno/contract/routes/archive';
import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import { Api } from './api';
import type { ParamOf, QueryOf, Download } from './api';

/** What is asked of the server about all that is kept of a course or a student, as one file. */
@Injectable({ providedIn: 'root' })
export class ArchiveApi {
  private readonly api = inject(Api);

  describeCourseArchive(
    course: ParamOf<typeof describeCourseArchive, 'course'>,
  ): Observable<Answer<typeof describeCourseArchive>> {
    return this.api.call(describeCourseArchive, { params: { course } });
  }

  describeStudentArchive(
    query: QueryOf<typeof describeStudentArchive>,
  ): Observable<Answer<typeof describeStudentArchive>> {
    return this.api.call(describeStudentArchive, { query });
  }

  downloadCourseArchive(
    course: ParamOf<typeof downloadCourseArchive, 'course'>,
    query?: QueryOf<typeof downloadCourseArchive>,
  ): Observable<Download> {
    return this.api.download(downloadCourseArchive, { params: { course }, query });
  }

  downloadStudentArchive(query: QueryOf<typeof downloadStudentArchive>): Observable<Download> {
    return this.api.download(downloadStudentArchive, { query });
  }
}
