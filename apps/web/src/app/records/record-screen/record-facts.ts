import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { TableModule } from 'primeng/table';
import { Button } from '../../ui/button/button';
import { LessonNotes } from '../notes/lesson-notes';
import { formatClock, formatDate, formatLength, formatSpan } from '../../ui/time/format-time';
import { OpenRecord } from './open-record';
import { ROLE_WORDS } from '../../live/role-words';

/** When the lesson was, how far its record is written down, what the tutor noted, and who was there. */
@Component({
  selector: 'cua-record-facts',
  host: { role: 'complementary', 'aria-label': 'About this lesson' },
  imports: [Button, LessonNotes, TableModule],
  templateUrl: './record-facts.html',
  styleUrl: './record-facts.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RecordFacts {
  /** How many lines of its students came late and wait to be looked at. */
  readonly late = input(0);
  readonly lookAtLate = output();
  protected readonly record = inject(OpenRecord);
  protected readonly say = {
    clock: formatClock,
    date: formatDate,
    length: formatLength,
    span: formatSpan,
  };
  /** Rows of PrimeNG’s tables have no type in their templates. */
  protected readonly roles: Readonly<Record<string, string>> = ROLE_WORDS;
  protected readonly people = computed(() =>
    this.record.people().map((person) => ({
      ...person,
      total: formatLength(person.spans.reduce((sum, { from, to }) => sum + to - from, 0)),
    })),
  );
}
