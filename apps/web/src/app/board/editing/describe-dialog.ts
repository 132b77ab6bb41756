import { ChangeDetectionStrategy, Component, effect, inject, input, output } from '@angular/core';
import { NonNullableFormBuilder } from '@angular/forms';
import { TextareaModule } from 'primeng/textarea';
import { Button } from '../../ui/button/button';
import { FORM } from '../../ui/forms/form';
import { DIALOG } from '../../ui/popup/dialog';

/** What is to be seen on a picture, in words for who can't see it: screen readers say it, and the picture is found by it. */
@Component({
  selector: 'cua-describe-dialog',
  imports: [Button, DIALOG, FORM, TextareaModule],
  template: `
    <cua-dialog header="Describe this picture" (closed)="closed.emit()">
      <form id="describe" [formGroup]="form" (cuaSubmit)="save()">
        <img [src]="'/api/files/' + file()" alt="" />
        <cua-field label="What is to be seen, for who can’t see it">
          <textarea
            pTextarea
            name="description"
            rows="4"
            maxlength="500"
            formControlName="description"
          ></textarea>
        </cua-field>
      </form>
      <ng-template cuaDialogFooter>
        <button type="button" cuaButton="quiet" (click)="closed.emit()">Cancel</button>
        <button type="submit" form="describe" cuaButton="strong">Save</button>
      </ng-template>
    </cua-dialog>
  `,
  styles: `
    form {
      display: grid;
      gap: var(--space-5);
      width: min(26rem, 100%);
    }
    img {
      max-width: 100%;
      max-height: 12rem;
      justify-self: center;
    }
    textarea {
      width: 100%;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DescribeDialog {
  readonly file = input.required<string>();
  readonly description = input('');
  readonly described = output<string>();
  readonly closed = output();

  protected readonly form = inject(NonNullableFormBuilder).group({
    description: '',
  });

  constructor() {
    effect(() => this.form.setValue({ description: this.description() }));
  }

  protected save(): void {
    this.described.emit(this.form.getRawValue().description.trim());
  }
}
