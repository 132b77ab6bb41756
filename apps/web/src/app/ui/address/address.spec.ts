import { Location } from '@angular/common';
import { ChangeDetectionStrategy, Component, provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { RouterTestingHarness } from '@angular/router/testing';
import { inAddress } from './address';

@Component({ template: '', changeDetection: ChangeDetectionStrategy.OnPush })
class Shown {
  readonly by = inAddress<'day' | 'week'>('by', (text) => (text === 'week' ? text : null), 'day');
  readonly from = inAddress<string>('from', (text) => (/^\d+$/.test(text) ? text : null), '1');
}

describe('what stands in the address', () => {
  let harness: RouterTestingHarness;

  beforeEach(async () => {
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideRouter([
          { path: 'shown', component: Shown },
          { path: 'other', children: [] },
        ]),
      ],
    });
    harness = await RouterTestingHarness.create();
  });
  const url = (): string => TestBed.inject(Location).path();
  const settled = (): Promise<void> => harness.fixture.whenStable();

  it('is what the screen begins with, but for what can’t be', async () => {
    const shown = await harness.navigateByUrl('/shown?by=week&from=x', Shown);
    expect([shown.by(), shown.from()]).toEqual(['week', '1']);
  });

  it('is what was chosen, all of a moment at once, and nothing of what is usual', async () => {
    const shown = await harness.navigateByUrl('/shown?else=1', Shown);
    await settled();
    shown.by.set('week');
    shown.from.set('7');
    await settled();
    expect(url()).toBe('/shown?else=1&by=week&from=7');
  });

  it('is changed at once, and then as often as browsers let it be', async () => {
    const shown = await harness.navigateByUrl('/shown', Shown);
    await settled();
    jasmine.clock().install();
    const changes = spyOn(TestBed.inject(Location), 'replaceState').and.callThrough();
    try {
      for (let page = 2; page <= 200; page++) {
        shown.from.set(String(page));
        await settled();
      }
      expect(url()).toBe('/shown?from=2');
      jasmine.clock().tick(1000);
      expect([url(), changes.calls.count()]).toEqual(['/shown?from=200', 2]);
    } finally {
      jasmine.clock().uninstall();
    }
  });

  it('isn’t put into the address of another screen', async () => {
    const shown = await harness.navigateByUrl('/shown', Shown);
    shown.by.set('week');
    await harness.navigateByUrl('/other');
    await settled();
    expect(url()).toBe('/other');
  });
});
