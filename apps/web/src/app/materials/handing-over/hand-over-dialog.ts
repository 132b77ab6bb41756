import type { Id } from '@cuaderno/core';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  output,
  signal,
  untracked,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { ButtonModule } from 'primeng/button';
import { CheckboxModule } from 'primeng/checkbox';
import { SelectModule } from 'primeng/select';
import { firstValueFrom } from 'rxjs';
import { CoursesApi } from '../../api/courses-api';
import { HandingOverApi } from '../../api/handing-over-api';
import { problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import type { Course } from '../../api/shapes';
import { DIALOG } from '../../ui/popup/dialog';
import { formatWhen } from '../../ui/time/format-time';
import type { HandOver, HandOverList } from './shapes';

/** Hands a file to students to keep: to all of a course or to some; shows who has it, and takes it back. */
@Component({
  selector: 'cua-hand-over-dialog',
  imports: [ButtonModule, CheckboxModule, DIALOG, FormsModule, SelectModule],
  templateUrl: './hand-over-dialog.html',
  styleUrl: './hand-over-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class HandOverDialog {
  readonly asset = input.required<{ readonly id: Id; readonly name: string }>();
  /** The course that is meant, where that is clear. */
  readonly of = input<Id | null>(null);
  /** Goes up when somebody has fetched what was handed over. */
  readonly changed = input(0);
  readonly closed = output();

  private readonly coursesApi = inject(CoursesApi);
  private readonly handingOverApi = inject(HandingOverApi);
  protected readonly courses = signal<readonly Course[] | null>(null);
  protected readonly course = linkedSignal<Id | null>(() => this.of());
  private readonly found = signal<HandOverList | null>(null);
  protected readonly students = computed(() => this.found()?.students ?? null);
  protected readonly problem = signal<ProblemDetails | null>(null);
  protected readonly busy = signal(false);
  /** Ids of those that were ticked. */
  protected readonly some = signal<readonly string[]>([]);
  protected readonly toAll = signal(true);
  protected readonly say = { when: formatWhen };
  /** Hand-overs of this file. */
  protected readonly handed = computed(
    () => this.found()?.handOvers.filter(({ asset }) => asset === this.asset().id) ?? [],
  );
  protected readonly ready = computed(
    () => this.course() !== null && (this.toAll() || this.some().length > 0) && !this.busy(),
  );

  constructor() {
    void this.loadCourses();
    effect(() => {
      // Out of reach, what is known stays.
      if (this.changed() > 0) untracked(() => void this.load().catch(() => undefined));
    });
  }

  protected async choose(course: Id): Promise<void> {
    this.course.set(course);
    this.some.set([]);
    this.found.set(null);
    await this.try(() => this.load());
  }

  protected async handOver(): Promise<void> {
    const [course, to] = [this.course(), this.toAll() ? ('all' as const) : this.some()];
    if (course === null) return;
    await this.try(async () => {
      await firstValueFrom(this.handingOverApi.handOver(course, { asset: this.asset().id, to }));
      this.some.set([]);
      await this.load();
    });
  }

  protected async takeBack({ id }: HandOver): Promise<void> {
    await this.try(async () => {
      await firstValueFrom(this.handingOverApi.takeBackHandOver(id));
      await this.load();
    });
  }

  /** Who has it, in words. */
  protected whoHas({ fetched }: HandOver): string {
    if (fetched.length === 0) return 'Nobody has it yet';
    return `${fetched.map(({ name }) => name).join(', ')} ${fetched.length === 1 ? 'has' : 'have'} it`;
  }

  private async load(): Promise<void> {
    const course = this.course();
    if (!course) return;
    const found = await firstValueFrom(this.handingOverApi.listHandOvers(course));
    if (course === this.course()) this.found.set(found);
  }

  private async loadCourses(): Promise<void> {
    await this.try(async () => {
      const { courses } = await firstValueFrom(this.coursesApi.readToday());
      this.courses.set(courses);
      this.course.update((course) => course ?? courses[0]?.id ?? null);
      await this.load();
    });
  }

  private async try(what: () => Promise<void>): Promise<void> {
    this.problem.set(null);
    this.busy.set(true);
    try {
      await what();
    } catch (error) {
      this.problem.set(problemOf(error));
    } finally {
      this.busy.set(false);
    }
  }
}
