import { effect, inject, Injectable, linkedSignal, signal, untracked } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { catchError, EMPTY, Subject, switchMap } from 'rxjs';
import { HandoutsApi } from '../../api/handouts-api';
import type { ReadFolder } from '../../records/reading/shapes';
import { OpenLesson } from '../open-lesson/open-lesson';

/** What the tutor lets this course's students look at, beside the board. Provided by the screen of a lesson. */
@Injectable()
export class Handouts {
  private readonly api = inject(HandoutsApi);
  private readonly lesson = inject(OpenLesson);
  /** How often that was asked: an answer that was overtaken is old. */
  private readonly rereads = new Subject<void>();

  readonly folders = signal<readonly ReadFolder[]>([]);
  /** Looking at that, and not at the board. */
  readonly looking = linkedSignal({
    source: this.folders,
    computation: (folders, before: { value: boolean } | undefined): boolean =>
      (before?.value ?? false) && folders.length > 0,
  });

  constructor() {
    this.rereads
      .pipe(
        // Out of reach, what is known stays: nothing that was taken back can be seen by that.
        switchMap(() => this.api.listHandouts().pipe(catchError(() => EMPTY))),
        takeUntilDestroyed(),
      )
      .subscribe((folders) => this.folders.set(folders));
    effect(() => {
      // Also when the line is back: what was said meanwhile was missed.
      const session = this.lesson.session();
      if (session?.line() !== 'live') return;
      session.features.invalidation.materials();
      untracked(() => this.read());
    });
  }

  read(): void {
    this.rereads.next();
  }
}
