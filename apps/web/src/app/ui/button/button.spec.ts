import { ChangeDetectionStrategy, Component } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Button } from './button';

@Component({
  imports: [Button],
  template: `
    <form (submit)="(false)">
      <button cuaButton>Keep it</button>
      <button cuaButton="strong" type="submit">Save</button>
      <a cuaButton="quiet" href="#today">Today</a>
    </form>
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
class Host {}

describe('a button', () => {
  it('sends a form only where that is said', async () => {
    const fixture = TestBed.createComponent(Host);
    await fixture.whenStable();
    const buttons = (fixture.nativeElement as HTMLElement).querySelectorAll('button');
    expect([...buttons].map(({ type }) => type)).toEqual(['button', 'submit']);
  });

  it('looks as its kind says, on a link too', async () => {
    const fixture = TestBed.createComponent(Host);
    await fixture.whenStable();
    const all = (fixture.nativeElement as HTMLElement).querySelectorAll('.cua-button');
    expect([...all].map((one) => one.className.replace('cua-button', '').trim())).toEqual([
      '',
      'strong',
      'quiet',
    ]);
  });
});
