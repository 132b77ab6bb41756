import { Injectable } from '@angular/core';
import type { NoteKind } from '../../api/shapes';

/** Something that is being written, and which version it amends. */
export interface NoteDraft {
  readonly text: string;
  readonly follows: string | null;
}

export type Drafts = Partial<Record<NoteKind, NoteDraft>>;

/** What is being written of lessons, kept while this window is open: a sheet that is closed loses no word. */
@Injectable({ providedIn: 'root' })
export class NoteDrafts {
  private readonly lessons = new Map<string, Drafts>();

  of(lesson: string): Drafts {
    return this.lessons.get(lesson) ?? {};
  }

  keep(lesson: string, drafts: Drafts): void {
    this.lessons.set(lesson, drafts);
  }
}
