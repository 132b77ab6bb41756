import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Deletion } from '../../api/student-data';
import { Button } from '../../ui/button/button';
import { DeletionReportView } from './deletion-report';
import { DIALOG } from '../../ui/popup/dialog';

/** Reports of all that was deleted. */
@Component({
  selector: 'cua-deletions-dialog',
  imports: [Button, DeletionReportView, DIALOG],
  template: `
    <cua-dialog header="What was deleted" (closed)="closed.emit()">
      @for (one of deletions(); track one.id) {
        <cua-deletion-report [deletion]="one" />
      }
      <ng-template cuaDialogFooter>
        <button type="button" cuaButton="strong" (click)="closed.emit()">Done</button>
      </ng-template>
    </cua-dialog>
  `,
  styles: `
    cua-deletion-report + cua-deletion-report {
      margin-top: var(--space-9);
      padding-top: var(--space-8);
      border-top: 1px solid var(--line);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DeletionsDialog {
  readonly deletions = input.required<readonly Deletion[]>();
  readonly closed = output();
}
