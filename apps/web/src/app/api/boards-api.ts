import type { Answer } from '@cuaderno/contract/route';
import {
  copyBoard,
  createBoard,
  downloadBoardPdf,
  importBoard,
  listBoardWriters,
  listUnreadable,
  movePages,
  placeBoard,
  readBoard,
  readBoardPreview,
  removeBoard,
  renameBoard,
  restoreBoard,
  uploadMaterial,
} from '@cuaderno/contract/routes/boards';
import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import { Api } from './api';
import type { ParamOf, BodyOf, QueryOf, Download, Sending } from './api';

/** What is asked of the server about boards of courses. */
@Injectable({ providedIn: 'root' })
export class BoardsApi {
  private readonly api = inject(Api);

  copyBoard(
    board: ParamOf<typeof copyBoard, 'board'>,
    body: BodyOf<typeof copyBoard>,
  ): Observable<Answer<typeof copyBoard>> {
    return this.api.call(copyBoard, { params: { board }, body });
  }

  createBoard(
    course: ParamOf<typeof createBoard, 'course'>,
    body: BodyOf<typeof createBoard>,
  ): Observable<Answer<typeof createBoard>> {
    return this.api.call(createBoard, { params: { course }, body });
  }

  downloadBoardPdf(
    board: ParamOf<typeof downloadBoardPdf, 'board'>,
    query?: QueryOf<typeof downloadBoardPdf>,
  ): Observable<Download> {
    return this.api.download(downloadBoardPdf, { params: { board }, query });
  }

  /** A file becomes a board: how much of it is there, and at last the board, or the job that makes it. */
  importBoard(
    course: ParamOf<typeof importBoard, 'course'>,
    body: BodyOf<typeof importBoard>,
    query: QueryOf<typeof importBoard>,
  ): Observable<Sending<typeof importBoard>> {
    return this.api.send(importBoard, { params: { course }, query, body });
  }

  listBoardWriters(
    board: ParamOf<typeof listBoardWriters, 'board'>,
  ): Observable<Answer<typeof listBoardWriters>> {
    return this.api.call(listBoardWriters, { params: { board } });
  }

  listUnreadable(
    board: ParamOf<typeof listUnreadable, 'board'>,
  ): Observable<Answer<typeof listUnreadable>> {
    return this.api.call(listUnreadable, { params: { board } });
  }

  movePages(
    board: ParamOf<typeof movePages, 'board'>,
    body: BodyOf<typeof movePages>,
  ): Observable<Answer<typeof movePages>> {
    return this.api.call(movePages, { params: { board }, body });
  }

  placeBoard(
    board: ParamOf<typeof placeBoard, 'board'>,
    body: BodyOf<typeof placeBoard>,
  ): Observable<Answer<typeof placeBoard>> {
    return this.api.call(placeBoard, { params: { board }, body });
  }

  readBoard(board: ParamOf<typeof readBoard, 'board'>): Observable<Answer<typeof readBoard>> {
    return this.api.call(readBoard, { params: { board } });
  }

  readBoardPreview(
    board: ParamOf<typeof readBoardPreview, 'board'>,
  ): Observable<Answer<typeof readBoardPreview>> {
    return this.api.call(readBoardPreview, { params: { board } });
  }

  removeBoard(board: ParamOf<typeof removeBoard, 'board'>): Observable<Answer<typeof removeBoard>> {
    return this.api.call(removeBoard, { params: { board } });
  }

  renameBoard(
    board: ParamOf<typeof renameBoard, 'board'>,
    body: BodyOf<typeof renameBoard>,
  ): Observable<Answer<typeof renameBoard>> {
    return this.api.call(renameBoard, { params: { board }, body });
  }

  restoreBoard(
    board: ParamOf<typeof restoreBoard, 'board'>,
  ): Observable<Answer<typeof restoreBoard>> {
    return this.api.call(restoreBoard, { params: { board } });
  }

  uploadMaterial(
    board: ParamOf<typeof uploadMaterial, 'board'>,
    body: BodyOf<typeof uploadMaterial>,
    query?: QueryOf<typeof uploadMaterial>,
  ): Observable<Answer<typeof uploadMaterial>> {
    return this.api.call(uploadMaterial, { params: { board }, query, body });
  }
}
