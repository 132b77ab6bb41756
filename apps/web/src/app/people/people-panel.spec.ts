import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { newId } from '@cuaderno/core';
import type { Person } from '@cuaderno/core';
import { PeoplePanel } from './people-panel';
import { PeoplePanelHarness } from './people-panel.harness';

const person = (name: string, change: Partial<Person> = {}): Person => ({
  id: newId(),
  name,
  nth: 1,
  role: 'student',
  trust: 'look',
  here: true,
  page: null,
  ...change,
});

describe('the people panel', () => {
  async function panel(
    people: Person[],
  ): Promise<{ harness: PeoplePanelHarness; given: unknown[] }> {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(PeoplePanel);
    fixture.componentRef.setInput('people', people);
    const given: unknown[] = [];
    fixture.componentInstance.trust.subscribe((event) => given.push(event));
    return {
      harness: await TestbedHarnessEnvironment.harnessForFixture(fixture, PeoplePanelHarness),
      given,
    };
  }

  it('lists students in order of arrival, and tells those of one name apart', async () => {
    const { harness } = await panel([
      person('Maren', { role: 'tutor' }),
      person('Ida'),
      person('Ida', { nth: 2 }),
    ]);
    const names = await harness.names();
    expect(names.length).toBe(2);
    expect(names[0]).toContain('Ida');
    expect(names[1]).toContain('Ida (2)');
  });

  it('gives and takes one pen with one touch', async () => {
    const [ida, noor] = [person('Ida'), person('Noor', { trust: 'write' })];
    const { harness, given } = await panel([ida, noor]);
    expect(await harness.writing()).toEqual([false, true]);
    await harness.touchPen(0);
    await harness.touchPen(1);
    expect(given).toEqual([
      { who: ida.id, trust: 'write' },
      { who: noor.id, trust: 'look' },
    ]);
  });

  it('takes all pens with one touch, when there are any', async () => {
    const { harness, given } = await panel([person('Ida', { trust: 'hands' }), person('Noor')]);
    await harness.takeAllPens();
    await harness.givePensToAll();
    expect(given).toEqual([
      { who: 'all', trust: 'look' },
      { who: 'all', trust: 'write' },
    ]);
    TestBed.resetTestingModule();
    expect(await (await panel([person('Ida')])).harness.canTakeAllPens()).toBeFalse();
  });

  it('sends someone out, with or without a way back', async () => {
    const ida = person('Ida');
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(PeoplePanel);
    fixture.componentRef.setInput('people', [person('Jonas'), ida]);
    const said: unknown[] = [];
    fixture.componentInstance.word.subscribe((word) => said.push(word));
    const harness = await TestbedHarnessEnvironment.harnessForFixture(fixture, PeoplePanelHarness);
    await harness.choose(1, 'Send out, may knock again');
    await harness.choose(1, 'Send out for this lesson');
    expect(said).toEqual([
      { who: ida.id, word: 'out' },
      { who: ida.id, word: 'barred' },
    ]);
  });
});
