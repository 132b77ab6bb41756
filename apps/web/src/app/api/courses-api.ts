import type { Answer } from '@cuaderno/contract/route';
import {
  cancelGuestLink,
  createCourse,
  createGuestLink,
  listGuestLinks,
  readCourse,
  readToday,
  renewJoinLink,
  resumeCourse,
  retireCourse,
  setCourseRules,
  setDoorRule,
} from '@cuaderno/contract/routes/courses';
import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import { Api } from './api';
import type { ParamOf, BodyOf } from './api';

/** What is asked of the server about courses, who comes into them and how. */
@Injectable({ providedIn: 'root' })
export class CoursesApi {
  private readonly api = inject(Api);

  cancelGuestLink(
    course: ParamOf<typeof cancelGuestLink, 'course'>,
    link: ParamOf<typeof cancelGuestLink, 'link'>,
  ): Observable<Answer<typeof cancelGuestLink>> {
    return this.api.call(cancelGuestLink, { params: { course, link } });
  }

  createCourse(body: BodyOf<typeof createCourse>): Observable<Answer<typeof createCourse>> {
    return this.api.call(createCourse, { body });
  }

  createGuestLink(
    course: ParamOf<typeof createGuestLink, 'course'>,
    body: BodyOf<typeof createGuestLink>,
  ): Observable<Answer<typeof createGuestLink>> {
    return this.api.call(createGuestLink, { params: { course }, body });
  }

  listGuestLinks(
    course: ParamOf<typeof listGuestLinks, 'course'>,
  ): Observable<Answer<typeof listGuestLinks>> {
    return this.api.call(listGuestLinks, { params: { course } });
  }

  readCourse(course: ParamOf<typeof readCourse, 'course'>): Observable<Answer<typeof readCourse>> {
    return this.api.call(readCourse, { params: { course } });
  }

  readToday(): Observable<Answer<typeof readToday>> {
    return this.api.call(readToday);
  }

  renewJoinLink(
    course: ParamOf<typeof renewJoinLink, 'course'>,
  ): Observable<Answer<typeof renewJoinLink>> {
    return this.api.call(renewJoinLink, { params: { course } });
  }

  resumeCourse(
    course: ParamOf<typeof resumeCourse, 'course'>,
  ): Observable<Answer<typeof resumeCourse>> {
    return this.api.call(resumeCourse, { params: { course } });
  }

  retireCourse(
    course: ParamOf<typeof retireCourse, 'course'>,
  ): Observable<Answer<typeof retireCourse>> {
    return this.api.call(retireCourse, { params: { course } });
  }

  setCourseRules(
    course: ParamOf<typeof setCourseRules, 'course'>,
    body: BodyOf<typeof setCourseRules>,
  ): Observable<Answer<typeof setCourseRules>> {
    return this.api.call(setCourseRules, { params: { course }, body });
  }

  setDoorRule(
    course: ParamOf<typeof setDoorRule, 'course'>,
    body: BodyOf<typeof setDoorRule>,
  ): Observable<Answer<typeof setDoorRule>> {
    return this.api.call(setDoorRule, { params: { course }, body });
  }
}
