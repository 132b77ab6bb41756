import { SAID_SOURCES } from '@cuaderno/core/features';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { CheckboxModule } from 'primeng/checkbox';
import { firstValueFrom } from 'rxjs';
import { Attempt } from '../../api/attempt';
import { StudentDataApi } from '../../api/student-data-api';
import type { Deletion, Seat, StudentData } from '../../api/student-data';
import { Button } from '../../ui/button/button';
import { ArchiveButton } from '../export/archive-button';
import { DIALOG } from '../../ui/popup/dialog';
import { formatWhen } from '../../ui/time/format-time';
import { DeletionReportView } from './deletion-report';
import { count, saidCounts } from './report-text';
import { ProblemMessage } from '../../ui/problem/problem-message';

/** A course with the lessons of it to which students of the name came. */
interface MentionPlace {
  readonly course: string;
  readonly name: string;
  readonly seats: readonly Seat[];
}

/** Shows what there is of a student, and deletes it for good. */
@Component({
  selector: 'cua-deletion-dialog',
  imports: [
    ArchiveButton,
    Button,
    CheckboxModule,
    DeletionReportView,
    DIALOG,
    FormsModule,
    ProblemMessage,
  ],
  templateUrl: './deletion-dialog.html',
  styleUrl: './deletion-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DeletionDialog {
  readonly name = input.required<string>();
  /** Says whether something was deleted. */
  readonly closed = output<boolean>();
  private readonly studentDataApi = inject(StudentDataApi);

  protected readonly data = signal<StudentData | null>(null);
  protected readonly chosen = signal<ReadonlySet<string>>(new Set());
  protected readonly ink = signal<'keep' | 'take-out'>('take-out');
  protected readonly named = signal(true);
  protected readonly sure = signal(false);
  protected readonly deletion = signal<Deletion | null>(null);
  protected readonly attempt = new Attempt();
  protected readonly say = { count, when: formatWhen };

  protected readonly places = computed<readonly MentionPlace[]>(() => {
    const places = new Map<string, MentionPlace & { seats: Seat[] }>();
    for (const seat of this.data()?.seats ?? []) {
      const { course, courseName: name } = seat;
      if (!places.has(course)) places.set(course, { course, name, seats: [] });
      places.get(course)!.seats.push(seat);
    }
    return [...places.values()];
  });
  protected readonly openNow = computed(
    () => this.data()?.seats.some(({ open, person }) => open && this.chosen().has(person)) ?? false,
  );
  protected readonly ready = computed(
    () => this.sure() && this.chosen().size > 0 && !this.openNow() && !this.attempt.busy(),
  );
  /** The student, for an address. */
  protected readonly query = computed(() => new URLSearchParams({ name: this.name() }).toString());

  constructor() {
    queueMicrotask(() => void this.load());
  }

  protected sums(seats: readonly Seat[]): string {
    const sum = (of: (seat: Seat) => number): number =>
      seats.reduce((all, seat) => all + of(seat), 0);
    return [
      count(seats.length, 'lesson'),
      count(
        sum(({ ink }) => ink),
        'line or text',
        'lines and texts',
      ),
      saidCounts(
        Object.fromEntries(
          SAID_SOURCES.map((source) => [source, sum(({ said }) => said[source] ?? 0)]),
        ),
      ),
    ].join(' · ');
  }

  protected isChosen(seats: readonly Seat[]): boolean {
    return seats.every(({ person }) => this.chosen().has(person));
  }

  protected isPartly(seats: readonly Seat[]): boolean {
    return !this.isChosen(seats) && seats.some(({ person }) => this.chosen().has(person));
  }

  protected choose(seats: readonly Seat[], yes: boolean): void {
    const chosen = new Set(this.chosen());
    for (const { person } of seats)
      if (yes) chosen.add(person);
      else chosen.delete(person);
    this.chosen.set(chosen);
  }

  protected close(): void {
    // What is being deleted is deleted, whether this is open or not; its report stays to be read.
    this.closed.emit(this.deletion() !== null || this.attempt.busy());
  }

  protected async load(): Promise<void> {
    await this.attempt.make(async () => {
      const data = await firstValueFrom(this.studentDataApi.readStudentData({ name: this.name() }));
      this.data.set(data);
      this.chosen.set(new Set(data.seats.map(({ person }) => person)));
    });
  }

  protected async delete(): Promise<void> {
    await this.attempt.make(async () => {
      this.deletion.set(
        await firstValueFrom(
          this.studentDataApi.deleteStudentData({
            name: this.name(),
            people: [...this.chosen()],
            ink: this.ink(),
            named: this.named(),
          }),
        ),
      );
    });
  }
}
