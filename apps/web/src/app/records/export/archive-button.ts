import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  effect,
  inject,
  input,
  signal,
  viewChild,
} from '@angular/core';
import type { ElementRef } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import { ArchiveApi } from '../../api/archive-api';
import { problemOf } from '../../api/problem';
import { Button } from '../../ui/button/button';
import { inShownZone } from '../../ui/time/shown-zone';
import { Making } from './making';
import { ProblemMessage } from '../../ui/problem/problem-message';

/** Whose everything it is. */
export type ArchiveOf = { readonly course: string } | { readonly student: string };

/** Saves everything of a course or a student as one archive: long work, which can be stopped. */
@Component({
  selector: 'cua-archive-button',
  imports: [Button, ProblemMessage],
  template: `
    @if (making.part() !== null) {
      <span role="status">Making the archive…</span>
      <button #next type="button" cuaButton="quiet" (click)="making.stop()">Stop</button>
    } @else if (bound().length > 0) {
      <p role="status">
        Protected against being changed, copied or printed:
        @for (name of bound(); track $index) {
          <bdi>{{ name }}</bdi>{{ $last ? '.' : ', ' }}
        }
        Copies in the archive are not: save it only if you may.
      </p>
      <button #next type="button" cuaButton (click)="make()">Save the archive</button>
      <button type="button" cuaButton="quiet" (click)="bound.set([])">Cancel</button>
    } @else {
      <button #next type="button" cuaButton="quiet" (click)="save()">
        {{ label() }}
      </button>
    }
    <cua-problem [of]="making.problem()" />
  `,
  styles: `
    :host {
      display: block;
    }

    p {
      max-width: 32rem;
      margin: var(--space-4) 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ArchiveButton {
  readonly label = input.required<string>();
  /** Whose archive it is, as a path of the API; a student's name may stand in its query. */
  readonly of = input.required<ArchiveOf>();
  private readonly archiveApi = inject(ArchiveApi);
  protected readonly making = new Making();
  private asking = false;
  /** Names of protected PDFs in it, of which the tutor is told before it is made. */
  protected readonly bound = signal<readonly string[]>([]);

  private readonly next = viewChild<ElementRef<HTMLButtonElement>>('next');

  constructor() {
    // What was pressed is gone: the focus goes on to what stands in its place.
    let before: HTMLButtonElement | null = null;
    effect(() => {
      const button = this.next()?.nativeElement ?? null;
      if (before && button !== before && document.activeElement === document.body) button?.focus();
      before = button;
    });
    inject(DestroyRef).onDestroy(() => this.making.stop());
  }

  protected async save(): Promise<void> {
    if (this.asking) return;
    this.asking = true;
    this.making.problem.set(null);
    try {
      const of = this.of();
      const described = await firstValueFrom(
        'course' in of
          ? this.archiveApi.describeCourseArchive(of.course)
          : this.archiveApi.describeStudentArchive({ name: of.student }),
      );
      this.bound.set(described.protected);
    } catch (error) {
      return this.making.problem.set(problemOf(error));
    } finally {
      this.asking = false;
    }
    if (this.bound().length === 0) await this.make();
  }

  protected async make(): Promise<void> {
    this.bound.set([]);
    const of = this.of();
    await this.making.save(
      'course' in of
        ? this.archiveApi.downloadCourseArchive(of.course, inShownZone())
        : this.archiveApi.downloadStudentArchive({ name: of.student, ...inShownZone() }),
    );
  }
}
