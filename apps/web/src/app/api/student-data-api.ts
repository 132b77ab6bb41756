import type { Answer } from '@cuaderno/contract/route';
import {
  deleteStudentData,
  listDeletions,
  readStudentData,
} from '@cuaderno/contract/routes/student-data';
import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import { Api } from './api';
import type { BodyOf } from './api';

/** What is asked of the server about what is kept of a student. */
@Injectable({ providedIn: 'root' })
export class StudentDataApi {
  private readonly api = inject(Api);

  deleteStudentData(
    body: BodyOf<typeof deleteStudentData>,
  ): Observable<Answer<typeof deleteStudentData>> {
    return this.api.call(deleteStudentData, { body });
  }

  listDeletions(): Observable<Answer<typeof listDeletions>> {
    return this.api.call(listDeletions);
  }

  readStudentData(
    body: BodyOf<typeof readStudentData>,
  ): Observable<Answer<typeof readStudentData>> {
    return this.api.call(readStudentData, { body });
  }
}
