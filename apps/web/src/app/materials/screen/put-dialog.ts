import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { mayLieIn } from '@cuaderno/core/materials';
import type { Id } from '@cuaderno/core/id';
import type { Folder } from '@cuaderno/core/materials';
import { FormControl, FormGroup } from '@angular/forms';
import { LIST } from '../../ui/list/list';
import { Button } from '../../ui/button/button';
import { folderLines } from '../store/folder-lines';
import { FORM } from '../../ui/forms/form';
import { DIALOG } from '../../ui/popup/dialog';

/** Asks into which folder things go. */
@Component({
  selector: 'cua-put-dialog',
  imports: [Button, DIALOG, FORM, LIST],
  template: `
    <cua-dialog
      [header]="copying() ? 'Copy into which folder?' : 'Put into which folder?'"
      (closed)="closed.emit()"
    >
      <form class="form" [formGroup]="form" (cuaSubmit)="put.emit(form.getRawValue().to)">
        <cua-field label="Folder">
          <p-select
            ariaLabel="Folder"
            appendTo="body"
            optionLabel="name"
            optionValue="id"
            [filter]="options().length > 12"
            [options]="options()"
            formControlName="to"
          />
        </cua-field>
        <div class="buttons">
          <button type="button" cuaButton="quiet" (click)="closed.emit()">Not now</button>
          <button type="submit" cuaButton="strong">
            {{ copying() ? 'Copy them here' : 'Put them here' }}
          </button>
        </div>
      </form>
    </cua-dialog>
  `,
  styleUrl: './materials-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PutDialog {
  readonly folders = input.required<readonly Folder[]>();
  /** Folders that are put somewhere: not into themselves. */
  readonly moving = input.required<readonly Id[]>();
  readonly copying = input(false);
  readonly put = output<Id | null>();
  readonly closed = output();
  protected readonly form = new FormGroup({ to: new FormControl<Id | null>(null) });

  protected readonly options = computed<{ id: Id | null; name: string }[]>(() => [
    { id: null, name: 'My materials' },
    ...folderLines(this.folders()).filter(
      ({ id }) =>
        this.copying() || this.moving().every((what) => mayLieIn(this.folders(), what, id)),
    ),
  ]);
}
