import type { Answer } from '@cuaderno/contract/route';
import {
  readRecordLog,
  readTimeline,
  copyRecord,
  downloadAttendance,
  downloadRecordPdf,
  downloadSaid,
  findRecords,
  keepNote,
  listAttendance,
  listNotes,
  listStudents,
  readRecord,
  readRecordBoard,
  readRecordPreview,
  retryIndexing,
} from '@cuaderno/contract/routes/records';
import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import { Api } from './api';
import type { ParamOf, BodyOf, QueryOf, Download } from './api';

/** What is asked of the server about records of lessons, and notes on them. */
@Injectable({ providedIn: 'root' })
export class RecordsApi {
  private readonly api = inject(Api);

  copyRecord(
    lesson: ParamOf<typeof copyRecord, 'lesson'>,
    body: BodyOf<typeof copyRecord>,
  ): Observable<Answer<typeof copyRecord>> {
    return this.api.call(copyRecord, { params: { lesson }, body });
  }

  downloadAttendance(
    course: ParamOf<typeof downloadAttendance, 'course'>,
    query?: QueryOf<typeof downloadAttendance>,
  ): Observable<Download> {
    return this.api.download(downloadAttendance, { params: { course }, query });
  }

  downloadRecordPdf(
    lesson: ParamOf<typeof downloadRecordPdf, 'lesson'>,
    query?: QueryOf<typeof downloadRecordPdf>,
  ): Observable<Download> {
    return this.api.download(downloadRecordPdf, { params: { lesson }, query });
  }

  downloadSaid(
    lesson: ParamOf<typeof downloadSaid, 'lesson'>,
    file: ParamOf<typeof downloadSaid, 'file'>,
    query?: QueryOf<typeof downloadSaid>,
  ): Observable<Download> {
    return this.api.download(downloadSaid, { params: { lesson, file }, query });
  }

  findRecords(query?: QueryOf<typeof findRecords>): Observable<Answer<typeof findRecords>> {
    return this.api.call(findRecords, { query });
  }

  keepNote(
    lesson: ParamOf<typeof keepNote, 'lesson'>,
    body: BodyOf<typeof keepNote>,
  ): Observable<Answer<typeof keepNote>> {
    return this.api.call(keepNote, { params: { lesson }, body });
  }

  listAttendance(
    course: ParamOf<typeof listAttendance, 'course'>,
  ): Observable<Answer<typeof listAttendance>> {
    return this.api.call(listAttendance, { params: { course } });
  }

  listNotes(lesson: ParamOf<typeof listNotes, 'lesson'>): Observable<Answer<typeof listNotes>> {
    return this.api.call(listNotes, { params: { lesson } });
  }

  listStudents(): Observable<Answer<typeof listStudents>> {
    return this.api.call(listStudents);
  }

  readRecord(lesson: ParamOf<typeof readRecord, 'lesson'>): Observable<Answer<typeof readRecord>> {
    return this.api.call(readRecord, { params: { lesson } });
  }

  readRecordBoard(
    lesson: ParamOf<typeof readRecordBoard, 'lesson'>,
  ): Observable<Answer<typeof readRecordBoard>> {
    return this.api.call(readRecordBoard, { params: { lesson } });
  }

  /** The page of a record with most ink, as a packed snapshot. */
  readRecordPreview(
    lesson: ParamOf<typeof readRecordPreview, 'lesson'>,
  ): Observable<Answer<typeof readRecordPreview>> {
    return this.api.call(readRecordPreview, { params: { lesson } });
  }

  retryIndexing(
    lesson: ParamOf<typeof retryIndexing, 'lesson'>,
  ): Observable<Answer<typeof retryIndexing>> {
    return this.api.call(retryIndexing, { params: { lesson } });
  }

  /** The operations of a lesson, with the board before them (MessagePack). */
  readRecordLog(
    lesson: ParamOf<typeof readRecordLog, 'lesson'>,
  ): Observable<Answer<typeof readRecordLog>> {
    return this.api.call(readRecordLog, { params: { lesson } });
  }

  readTimeline(
    lesson: ParamOf<typeof readTimeline, 'lesson'>,
  ): Observable<Answer<typeof readTimeline>> {
    return this.api.call(readTimeline, { params: { lesson } });
  }
}
