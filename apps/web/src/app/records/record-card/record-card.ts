import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { ListedRecord } from '../../api/shapes';
import type { PaperSource } from '../../board/drawing/paper-source';
import { BoardCover } from '../../board/pages/board-cover';
import { formatDate, formatLength } from '../../ui/time/format-time';

/** A record in a list: its page with most ink, when it was and for how long, who was there, what is to be done. */
@Component({
  selector: 'cua-record-card',
  imports: [BoardCover, RouterLink],
  template: `
    <cua-board-cover [of]="{ record: record().lesson }" [papers]="papers()" />
    <div class="words">
      <a class="name" [attr.aria-label]="name()" [routerLink]="['/records', record().lesson]"
        ><bdi>{{ record().title }}</bdi></a
      >
      <span class="more">
        {{ say.date(record().openedAt) }} ·
        @if (saysCourse()) {
          <bdi>{{ record().courseName }}</bdi> ·
        }
        {{ length() }} · <bdi>{{ record().people.join(', ') || 'nobody came' }}</bdi>
      </span>
      @if (record().until; as until) {
        <span class="until"
          >Until next time: <bdi>{{ until }}</bdi></span
        >
      }
      <ng-content />
    </div>
  `,
  styleUrl: './record-card.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RecordCard {
  readonly record = input.required<ListedRecord>();
  readonly papers = input.required<PaperSource>();
  /** Whether records of several courses are listed. */
  readonly saysCourse = input(true);
  protected readonly say = { date: formatDate };
  /** As it is read out: many are called alike. */
  protected readonly name = computed(() => {
    const { title, openedAt, people } = this.record();
    return [title, formatDate(openedAt), ...people].join(', ');
  });
  protected readonly length = computed(() =>
    formatLength(this.record().closedAt - this.record().openedAt),
  );
}
