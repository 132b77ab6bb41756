import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { mayLieIn } from '@cuaderno/core';
import type { Folder, Id } from '@cuaderno/core';
import { FormsModule } from '@angular/forms';
import { ButtonModule } from 'primeng/button';
import { SelectModule } from 'primeng/select';
import { folderLines } from '../store/folder-lines';
import { DIALOG } from '../../ui/popup/dialog';

/** Asks into which folder things go. */
@Component({
  selector: 'cua-put-dialog',
  imports: [ButtonModule, DIALOG, FormsModule, SelectModule],
  template: `
    <p-dialog
      closeAriaLabel="Close"
      [header]="copying() ? 'Copy into which folder?' : 'Put into which folder?'"
      [visible]="true"
      [modal]="true"
      [draggable]="false"
      (visibleChange)="closed.emit()"
    >
      <form class="form" (ngSubmit)="put.emit(to())">
        <label class="field">
          Folder
          <p-select
            name="to"
            ariaLabel="Folder"
            appendTo="body"
            optionLabel="name"
            optionValue="id"
            [filter]="options().length > 12"
            [options]="options()"
            [ngModel]="to()"
            (ngModelChange)="to.set($event)"
          />
        </label>
        <div class="buttons">
          <p-button label="Not now" severity="secondary" [text]="true" (onClick)="closed.emit()" />
          <p-button type="submit" [label]="copying() ? 'Copy them here' : 'Put them here'" />
        </div>
      </form>
    </p-dialog>
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
  protected readonly to = signal<Id | null>(null);

  protected readonly options = computed<{ id: Id | null; name: string }[]>(() => [
    { id: null, name: 'My materials' },
    ...folderLines(this.folders()).filter(
      ({ id }) =>
        this.copying() || this.moving().every((what) => mayLieIn(this.folders(), what, id)),
    ),
  ]);
}
