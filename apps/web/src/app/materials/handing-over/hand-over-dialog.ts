import type { Id } from '@cuaderno/core/id';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { NonNullableFormBuilder } from '@angular/forms';
import { CheckboxModule } from 'primeng/checkbox';
import { firstValueFrom } from 'rxjs';
import { LIST } from '../../ui/list/list';
import { Attempt } from '../../api/attempt';
import { CoursesApi } from '../../api/courses-api';
import { HandingOverApi } from '../../api/handing-over-api';
import type { Course } from '../../api/shapes';
import { Button } from '../../ui/button/button';
import { isWritten } from '../../ui/forms/fits';
import { FORM } from '../../ui/forms/form';
import { DIALOG } from '../../ui/popup/dialog';
import { formatWhen } from '../../ui/time/format-time';
import type { HandOver, HandOverList } from './shapes';
import { ProblemMessage } from '../../ui/problem/problem-message';

/** Hands a file to students to keep: to all of a course or to some; shows who has it, and takes it back. */
@Component({
  selector: 'cua-hand-over-dialog',
  imports: [Button, CheckboxModule, DIALOG, FORM, ProblemMessage, LIST],
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
  protected readonly form = inject(NonNullableFormBuilder).group({
    course: ['', isWritten('Choose a course.')],
    toAll: true,
    /** Ids of those that were ticked. */
    some: [[] as readonly string[]],
  });
  private readonly values = toSignal(this.form.valueChanges, { initialValue: this.form.value });
  private readonly course = computed(() => this.values().course ?? '');
  protected readonly toAll = computed(() => this.values().toAll ?? true);
  private readonly found = signal<HandOverList | null>(null);
  protected readonly students = computed(() => this.found()?.students ?? null);
  protected readonly attempt = new Attempt();
  protected readonly say = { when: formatWhen };
  /** Hand-overs of this file. */
  protected readonly handed = computed(
    () => this.found()?.handOvers.filter(({ asset }) => asset === this.asset().id) ?? [],
  );
  protected readonly ready = computed(
    () =>
      this.course() !== '' &&
      (this.toAll() || (this.values().some ?? []).length > 0) &&
      !this.attempt.busy(),
  );

  constructor() {
    void this.loadCourses();
    effect(() => {
      // Out of reach, what is known stays.
      if (this.changed() > 0) untracked(() => void this.load().catch(() => undefined));
    });
    effect(() => {
      if (this.course()) untracked(() => void this.choose());
    });
  }

  protected async handOver(): Promise<void> {
    const { course, toAll, some } = this.form.getRawValue();
    await this.attempt.make(async () => {
      const to = toAll ? ('all' as const) : some;
      await firstValueFrom(this.handingOverApi.handOver(course, { asset: this.asset().id, to }));
      this.form.controls.some.reset();
      await this.load();
    });
  }

  protected async takeBack({ id }: HandOver): Promise<void> {
    await this.attempt.make(async () => {
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
    await this.attempt.make(async () => {
      const { courses } = await firstValueFrom(this.coursesApi.readToday());
      this.courses.set(courses);
      this.form.controls.course.setValue(this.of() ?? courses[0]?.id ?? '');
    });
  }

  /** Of another course, other students are offered, and other hand-overs shown. */
  private async choose(): Promise<void> {
    this.form.controls.some.reset();
    this.found.set(null);
    await this.attempt.make(() => this.load());
  }
}
