import { Injectable } from '@angular/core';
import { LessonLine } from './lesson-line';

/** Dials live lines, for screens. */
@Injectable({ providedIn: 'root' })
export class LessonLines {
  /** @param path where the line leads, as `/live/lesson` */
  dial(path: string): LessonLine {
    return new LessonLine(path);
  }
}
