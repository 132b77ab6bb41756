import { FormControl } from '@angular/forms';
import * as z from 'zod';
import { fits, isWritten } from './fits';

describe('what a field has to be', () => {
  const words = (control: FormControl): unknown => control.errors?.['words'];

  it('is said in the words of the schema that it is sent to', () => {
    const control = new FormControl('', fits(z.string().max(3, 'At most three letters.')));
    expect(words(control)).toBeUndefined();
    control.setValue('tide');
    expect(words(control)).toBe('At most three letters.');
  });

  it('is written, or chosen where nothing is yet: in our words, never a program’s', () => {
    const control = new FormControl<string | null>(null, isWritten('Choose a course.'));
    for (const nothing of [null, '', '   ']) {
      control.setValue(nothing);
      expect(words(control)).toBe('Choose a course.');
    }
    control.setValue('c1');
    expect(control.valid).toBeTrue();
  });
});
