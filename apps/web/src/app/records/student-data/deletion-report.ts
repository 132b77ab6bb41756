import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Deletion } from '../../api/student-data';
import { Button } from '../../ui/button/button';
import { download } from '../../ui/download/download';
import { formatWhen } from '../../ui/time/format-time';
import { BEYOND, leftLines, reportLines, reportText } from './report-text';

/** What was done when a student's data was deleted, to be read and kept. */
@Component({
  selector: 'cua-deletion-report',
  imports: [Button],
  template: `
    <h3>{{ deletion().report.alias }}</h3>
    <p class="when">Deleted {{ when() }}</p>
    <ul>
      @for (line of done(); track $index) {
        <li>{{ line }}</li>
      }
    </ul>
    @if (left().length > 0) {
      <h4>The name still stands here</h4>
      <ul class="left">
        @for (line of left(); track $index) {
          <li>{{ line }}</li>
        }
      </ul>
    }
    <p class="when">{{ beyond }}</p>
    <button type="button" cuaButton="quiet" (click)="save()">Save this report as text</button>
  `,
  styles: `
    :host {
      display: block;
      max-width: 38rem;
    }
    h3,
    h4 {
      margin: 0;
      font-size: var(--size-l);
      font-weight: 600;
    }
    h4 {
      font-size: var(--size-base);
    }
    p {
      margin: var(--space-1) 0 var(--space-4);
    }
    .when {
      color: var(--ink-soft);
      font-size: var(--size-m);
    }
    ul {
      margin: 0 0 var(--space-6);
      padding-left: 1.2em;
    }
    li {
      padding: var(--space-1) 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DeletionReportView {
  readonly deletion = input.required<Deletion>();
  protected readonly done = computed(() => reportLines(this.deletion()));
  protected readonly left = computed(() => leftLines(this.deletion()));
  protected readonly when = computed(() => formatWhen(this.deletion().at));
  protected readonly beyond = BEYOND;

  protected save(): void {
    const { report } = this.deletion();
    const blob = new Blob([reportText(this.deletion())], { type: 'text/plain;charset=utf-8' });
    download(blob, `${report.alias}, deleted.txt`);
  }
}
