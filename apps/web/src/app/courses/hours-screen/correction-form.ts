import { correctHours } from '@cuaderno/contract/routes/hours';
import { ChangeDetectionStrategy, Component, effect, inject, input, output } from '@angular/core';
import { NonNullableFormBuilder } from '@angular/forms';
import { InputNumberModule } from 'primeng/inputnumber';
import { InputTextModule } from 'primeng/inputtext';
import { firstValueFrom } from 'rxjs';
import { Attempt } from '../../api/attempt';
import { HoursApi } from '../../api/hours-api';
import type { HourRow } from '../../api/timetable';
import { Button } from '../../ui/button/button';
import { fits } from '../../ui/forms/fits';
import { FORM } from '../../ui/forms/form';
import { ProblemMessage } from '../../ui/problem/problem-message';

const { minutes, why } = correctHours.body.shape;

/** Says how long a lesson counts, where that isn't what was measured, and why. */
@Component({
  selector: 'cua-correction-form',
  imports: [Button, FORM, InputNumberModule, InputTextModule, ProblemMessage],
  template: `
    <form [formGroup]="form" (cuaSubmit)="correct()">
      <cua-field class="minutes" label="Minutes">
        <p-inputnumber
          inputId="correction-minutes"
          fluid
          [min]="0"
          [max]="1440"
          [useGrouping]="false"
          formControlName="minutes"
        />
      </cua-field>
      <cua-field class="why" label="Why">
        <input pInputText name="why" maxlength="300" formControlName="why" required />
      </cua-field>
      <button type="submit" cuaButton="strong" [disabled]="attempt.busy()">Correct</button>
      <button type="button" cuaButton="quiet" (click)="closed.emit()">Cancel</button>
    </form>
    <cua-problem [of]="attempt.problem()" />
  `,
  styles: `
    :host {
      display: block;
      width: 100%;
    }
    form {
      display: flex;
      flex-wrap: wrap;
      align-items: start;
      gap: var(--space-4) var(--space-7);
    }
    /* Beside the fields, below the height of their names. */
    button {
      margin-top: calc(1lh + var(--space-3));
    }
    .minutes {
      width: 7rem;
    }
    .why {
      flex: 1 1 16rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CorrectionForm {
  readonly row = input.required<HourRow>();
  readonly corrected = output();
  readonly closed = output();
  private readonly hoursApi = inject(HoursApi);
  protected readonly form = inject(NonNullableFormBuilder).group({
    minutes: [0 as number | null, fits(minutes)],
    why: ['', fits(why)],
  });
  protected readonly attempt = new Attempt();

  constructor() {
    effect(() => this.form.controls.minutes.setValue(this.row().minutes));
  }

  protected async correct(): Promise<void> {
    const { minutes, why } = this.form.getRawValue();
    await this.attempt.make(async () => {
      const correction = { minutes: minutes!, why: why.trim() };
      await firstValueFrom(this.hoursApi.correctHours(this.row().lesson, correction));
      this.corrected.emit();
    });
  }
}
