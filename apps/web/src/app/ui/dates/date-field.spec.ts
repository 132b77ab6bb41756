import { ChangeDetectionStrategy, Component } from '@angular/core';
import { FormControl, ReactiveFormsModule } from '@angular/forms';
import { Screen } from '../../testing/screen';
import { DateField } from './date-field';

@Component({
  imports: [DateField, ReactiveFormsModule],
  template: `
    <cua-date-field of="day" label="Day" min="2026-12-01" [formControl]="day" />
    <cua-date-field of="time" label="Time" [formControl]="time" />
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
class SomeDates {
  readonly day = new FormControl('2026-12-03', { nonNullable: true });
  readonly time = new FormControl('16:30', { nonNullable: true });
}

describe('A field for a date', () => {
  let screen: Screen<SomeDates>;
  let some: SomeDates;

  beforeEach(async () => {
    screen = await Screen.show(SomeDates, {}, {});
    some = screen.fixture.componentInstance;
  });

  const field = (label: string) =>
    screen.element.querySelector<HTMLInputElement>(`input[aria-label=${label}]`)!;
  /** As what is pasted or spoken arrives: without keys. */
  const type = async (label: string, text: string): Promise<void> => {
    field(label).focus();
    field(label).value = text;
    field(label).dispatchEvent(new InputEvent('input', { bubbles: true }));
    await screen.settles();
  };
  const leave = async (label: string): Promise<void> => {
    field(label).dispatchEvent(new FocusEvent('blur'));
    await screen.settles();
  };

  it('shows what the form has, and has what is typed in any usual way', async () => {
    expect(field('Day').value).toBe('3 Dec 2026');
    expect(field('Time').value).toBe('16:30');
    await type('Day', '2026-12-08');
    expect(some.day.value).toBe('2026-12-08');
    expect(field('Day').value).toBe('2026-12-08');
    await leave('Day');
    expect(field('Day').value).toBe('8 Dec 2026');
    await type('Time', '5 pm');
    await leave('Time');
    expect(some.time.value).toBe('17:00');
    expect(field('Time').value).toBe('17:00');
  });

  it('has nothing while what is typed can’t be read', async () => {
    await type('Day', 'some day');
    expect(some.day.value).toBe('');
    await type('Time', '');
    expect(some.time.value).toBe('');
  });

  it('doesn’t take a day before the first', async () => {
    await type('Day', '30 Nov 2026');
    await leave('Day');
    expect(some.day.value).toBe('2026-12-03');
    expect(field('Day').value).toBe('3 Dec 2026');
  });

  it('is chosen from a calendar that stays by it while other things scroll', async () => {
    screen.button('Choose a day')!.click();
    await screen.settles();
    const panel = () => document.querySelector<HTMLElement>('.p-datepicker-panel');
    document.dispatchEvent(new Event('scroll'));
    window.dispatchEvent(new Event('scroll'));
    await screen.settles();
    expect(panel()).not.toBeNull();
    const days = [...panel()!.querySelectorAll<HTMLElement>('.p-datepicker-day')];
    days.find((one) => one.textContent.trim() === '24')!.click();
    await screen.settles();
    expect(some.day.value).toBe('2026-12-24');
  });
});
