import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  linkedSignal,
  signal,
  untracked,
} from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { Api, ApiError, troubleOf } from '../../api/api';
import type { Trouble } from '../../api/api';
import { BookOpen, Footprints, Pen, PenOff, SquarePen } from 'lucide';
import { Icon } from '../../icons/icon';
import { BoardSession } from '../../live/board-session';
import { PaperSource } from '../../stage/paper-source';
import { pdfJs } from '../../stage/pdf-js';
import { ReadingRoom } from '../../reading/reading-room';
import type { ReadFolder } from '../../reading/shapes';
import { WorkArea } from '../../work/work-area';

interface StudentLesson {
  readonly course: string;
  readonly title: string;
  readonly name: string;
}

/** The lesson as a student has it: the board, the tools, and one line that says who may write. */
@Component({
  selector: 'cua-lesson',
  imports: [Icon, ReadingRoom, RouterLink, WorkArea],
  templateUrl: './lesson.html',
  styleUrl: './lesson.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LessonScreen {
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  protected readonly icons = { BookOpen, Footprints, Pen, PenOff, SquarePen };
  protected readonly papers = new PaperSource();
  protected readonly session = signal<BoardSession | null>(null);
  protected readonly lesson = signal<StudentLesson | null>(null);
  protected readonly trouble = signal<Trouble | null>(null);
  protected readonly over = signal(false);
  /** What the tutor lets this course's students look at. */
  protected readonly folders = signal<readonly ReadFolder[]>([]);
  /** How often that was asked: an answer that was overtaken is old. */
  private round = 0;
  /** Looking at that, and not at the board. */
  protected readonly looking = linkedSignal({
    source: this.folders,
    computation: (folders, before: { value: boolean } | undefined): boolean =>
      (before?.value ?? false) && folders.length > 0,
  });
  protected readonly line = computed(() => this.session()?.line() ?? 'joining');
  protected readonly ended = computed(() => this.over() || this.line() === 'over');

  constructor() {
    void pdfJs();
    void this.enter();
    effect(() => {
      // Also when the line is back: what was said meanwhile was missed.
      const session = this.session();
      if (session?.line() !== 'live') return;
      session.materials();
      untracked(() => void this.readFolders());
    });
    effect(() => {
      // Sent out: what happens next is said at the door.
      if (this.line() === 'door') untracked(() => void this.toDoor());
    });
    inject(DestroyRef).onDestroy(() => {
      this.session()?.close();
      this.papers.close();
    });
  }

  protected async enter(): Promise<void> {
    this.trouble.set(null);
    try {
      this.lesson.set(await this.api.get<StudentLesson>('/lesson'));
      this.session.set(new BoardSession('/live/lesson'));
    } catch (error) {
      if (error instanceof ApiError && error.code === 'lesson-over') this.over.set(true);
      else if (error instanceof ApiError && error.code === 'at-the-door') await this.toDoor();
      else this.trouble.set(troubleOf(error));
    }
  }

  private async toDoor(): Promise<void> {
    await this.router.navigateByUrl('/door', { replaceUrl: true });
  }

  protected async readFolders(): Promise<void> {
    const round = ++this.round;
    // Out of reach, what is known stays: nothing that was taken back can be seen by that.
    const folders = await this.api.get<ReadFolder[]>('/lesson/materials').catch(() => null);
    if (folders && round === this.round) this.folders.set(folders);
  }

  protected reload(): void {
    location.reload();
  }
}
