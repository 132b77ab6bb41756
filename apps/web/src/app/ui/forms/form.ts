import { ReactiveFormsModule } from '@angular/forms';
import { Field } from './field';
import { Submit } from './submit';

/** What a component with a form imports. */
export const FORM = [Field, ReactiveFormsModule, Submit] as const;
