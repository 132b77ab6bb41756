import type { Answer } from '@cuaderno/contract/route';
import {
  closeLesson,
  findLesson,
  joinLesson,
  knockAgain,
  listCourseBoards,
  openCourseLesson,
  openLesson,
  readDoor,
  readLesson,
} from '@cuaderno/contract/routes/lessons';
import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import { Api } from './api';
import type { ParamOf, BodyOf } from './api';

/** What is asked of the server about lessons: at their door, in them, and opening and closing them. */
@Injectable({ providedIn: 'root' })
export class LessonsApi {
  private readonly api = inject(Api);

  closeLesson(
    lesson: ParamOf<typeof closeLesson, 'lesson'>,
  ): Observable<Answer<typeof closeLesson>> {
    return this.api.call(closeLesson, { params: { lesson } });
  }

  findLesson(body: BodyOf<typeof findLesson>): Observable<Answer<typeof findLesson>> {
    return this.api.call(findLesson, { body });
  }

  joinLesson(body: BodyOf<typeof joinLesson>): Observable<Answer<typeof joinLesson>> {
    return this.api.call(joinLesson, { body });
  }

  knockAgain(): Observable<Answer<typeof knockAgain>> {
    return this.api.call(knockAgain);
  }

  openLesson(board: ParamOf<typeof openLesson, 'board'>): Observable<Answer<typeof openLesson>> {
    return this.api.call(openLesson, { params: { board } });
  }

  openCourseLesson(
    course: ParamOf<typeof openCourseLesson, 'course'>,
    body: BodyOf<typeof openCourseLesson>,
  ): Observable<Answer<typeof openCourseLesson>> {
    return this.api.call(openCourseLesson, { params: { course }, body });
  }

  /** For who helps in the lesson. */
  listCourseBoards(): Observable<Answer<typeof listCourseBoards>> {
    return this.api.call(listCourseBoards);
  }

  readDoor(): Observable<Answer<typeof readDoor>> {
    return this.api.call(readDoor);
  }

  readLesson(): Observable<Answer<typeof readLesson>> {
    return this.api.call(readLesson);
  }
}
