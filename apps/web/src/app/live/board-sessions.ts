import { Injectable } from '@angular/core';
import { BoardSession } from './board-session';

/** Opens boards over the live line, for screens. */
@Injectable({ providedIn: 'root' })
export class BoardSessions {
  /** @param path where the line leads, as `/live/lesson` */
  open(path: string): BoardSession {
    return new BoardSession(path);
  }
}
