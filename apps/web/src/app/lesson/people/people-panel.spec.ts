import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { ComponentFixture } from '@angular/core/testing';
import { newId } from '@cuaderno/core/id';
import type { LessonWindow, Person } from '@cuaderno/core/features';
import type { Trust } from '@cuaderno/core/permissions';
import { PeoplePanel } from './people-panel';
import { pretendPerson } from '../../live/pretend-person';
import { PeoplePanelHarness } from './people-panel.harness';

const person = (name: string, change: Partial<Person> = {}): Person =>
  pretendPerson({ id: newId(), name, ...change });

describe('the people panel', () => {
  async function panel(
    people: Person[],
    late: Trust = 'view',
  ): Promise<{
    harness: PeoplePanelHarness;
    fixture: ComponentFixture<PeoplePanel>;
    given: unknown[];
    wished: unknown[];
  }> {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(PeoplePanel);
    fixture.componentRef.setInput('people', people);
    fixture.componentRef.setInput('late', late);
    const given: unknown[] = [];
    fixture.componentInstance.trust.subscribe((event) => given.push(event));
    const wished: unknown[] = [];
    fixture.componentInstance.wish.subscribe((event) => wished.push(event));
    return {
      harness: await TestbedHarnessEnvironment.harnessForFixture(fixture, PeoplePanelHarness),
      fixture,
      given,
      wished,
    };
  }

  it('lists students in order of arrival, and tells those of one name apart', async () => {
    const { harness } = await panel([
      person('Maren', { role: 'tutor' }),
      person('Ida'),
      person('Ida', { nameOrdinal: 2 }),
    ]);
    const names = await harness.names();
    expect(names.length).toBe(2);
    expect(names[0]).toContain('Ida');
    expect(names[1]).toContain('Ida (2)');
  });

  it('shows whose microphone is on, mutes it, and asks who has it off', async () => {
    const [ida, noor] = [person('Ida'), person('Noor')];
    const { harness, fixture, wished } = await panel([ida, noor]);
    const signs = (): (string | null)[] =>
      [...fixture.nativeElement.querySelectorAll('cua-voice-sign [role=img]')].map((sign) =>
        (sign as Element).getAttribute('aria-label'),
      );
    expect(signs()).toEqual([]);
    fixture.componentRef.setInput('voices', new Map([[ida.id, 'on']]));
    await fixture.whenStable();
    expect(signs()).toEqual(['microphone on']);
    await harness.choose(0, 'Mute');
    await harness.choose(1, 'Ask to switch the microphone on');
    expect(wished).toEqual([
      { kind: 'mute', who: ida.id },
      { kind: 'ask', who: noor.id },
    ]);
  });

  it('lists who helps and who watches by themselves, without pens to give', async () => {
    const [maren, tove, ebba] = [
      person('Maren', { role: 'tutor' }),
      person('Tove', { role: 'helper', trust: 'hands' }),
      person('Ebba', { role: 'watcher', here: false }),
    ];
    const { harness, fixture, wished } = await panel([maren, tove, ebba, person('Ida')]);
    fixture.componentRef.setInput('me', maren.id);
    expect(await harness.names()).toEqual(['Ida']);
    expect(await harness.others()).toEqual(['Tove helps here', 'Ebba watches away']);
    expect((await harness.pens()).length).toBe(1);
    await harness.choose(1, 'Hand over the lead');
    await harness.choose(2, 'Send out, may knock again');
    expect(wished).toEqual([
      { kind: 'lead', who: tove.id },
      { kind: 'door', who: ebba.id, word: 'out' },
    ]);
    // Who helps sees that the tutor leads.
    fixture.componentRef.setInput('me', tove.id);
    expect(await harness.others()).toEqual(['Maren tutor here', 'Ebba watches away']);
  });

  it('gives and takes one pen with one touch, in three steps', async () => {
    const [ida, noor] = [person('Ida'), person('Noor', { trust: 'write' })];
    const { harness, given } = await panel([ida, noor]);
    expect(await harness.pens()).toEqual(['Watching', 'Writing']);
    await harness.givePen(0, 'Writing');
    await harness.givePen(0, 'Hands on');
    await harness.givePen(1, 'Watching');
    expect(given).toEqual([
      { who: ida.id, trust: 'write' },
      { who: ida.id, trust: 'hands' },
      { who: noor.id, trust: 'view' },
    ]);
  });

  it('counts hands and signals at a glance, and lowers them', async () => {
    const ida = person('Ida', { hand: 2, signal: 'lost' });
    const { harness, wished } = await panel([
      ida,
      person('Noor', { hand: 1 }),
      person('Jonas', { signal: 'lost' }),
    ]);
    expect(await harness.counts()).toEqual(['2', '2Lost']);
    await harness.press('Ida has a hand up, number 2. Lower it');
    await harness.press('2 with a hand up. Lower all');
    expect(wished).toEqual([
      { kind: 'lower', who: ida.id },
      { kind: 'lower', who: 'all' },
    ]);
  });

  it('says how good a line is, and on what machine somebody is', async () => {
    const { harness } = await panel([person('Ida', { machine: 'phone', roundTrip: 500 })]);
    const [where] = await harness.whereAll();
    expect(where).toContain('phone');
    expect(await harness.lineOf(0)).toBe('Poor line: 500 ms there and back');
  });

  it('brings one window of somebody who has two', async () => {
    const ida = person('Ida');
    const [tablet, phone, another] = [newId(), newId(), newId()];
    const { harness, wished, fixture } = await panel([ida]);
    const has = (...windows: LessonWindow[]): void =>
      fixture.componentRef.setInput('windows', windows);
    has({ id: tablet, person: ida.id, machine: null });
    await harness.choose(0, 'Bring them here');
    has(
      { id: tablet, person: ida.id, machine: 'tablet' },
      { id: newId(), person: newId(), machine: 'computer' },
      { id: phone, person: ida.id, machine: 'phone' },
      { id: another, person: ida.id, machine: 'tablet' },
    );
    expect((await harness.whereAll())[0]).toContain('tablet and phone');
    await harness.choose(0, 'Bring their phone here');
    await harness.choose(0, 'Bring their second tablet here');
    fixture.componentRef.setInput('inStep', true);
    await expectAsync(harness.choose(0, 'Bring their phone here')).toBeRejected();
    expect(wished).toEqual([tablet, phone, another].map((window) => ({ kind: 'gather', window })));
  });

  it('makes somebody something else, where that is the tutor’s to say', async () => {
    const ida = person('Ida');
    const { harness, wished, fixture } = await panel([ida]);
    await expectAsync(harness.choose(0, 'Make them a helper')).toBeRejected();
    fixture.componentRef.setInput('givesRoles', true);
    await expectAsync(harness.choose(0, 'Make them a student')).toBeRejected();
    await harness.choose(0, 'Make them a helper');
    expect(wished).toEqual([{ kind: 'door', who: ida.id, word: 'in', as: 'helper' }]);
  });

  it('gives all a pen with one touch', async () => {
    const { harness, given } = await panel([person('Ida', { trust: 'hands' }), person('Noor')]);
    await harness.givePensToAll();
    await harness.givePensToAll('Hands on');
    expect(given).toEqual([
      { who: 'all', trust: 'write' },
      { who: 'all', trust: 'hands' },
    ]);
  });

  it('says for all before anyone is here', async () => {
    const { harness, given } = await panel([]);
    await harness.givePensToAll();
    expect(given).toEqual([{ who: 'all', trust: 'write' }]);
    TestBed.resetTestingModule();
    const later = await panel([], 'write');
    expect(await later.harness.forAll()).toBe('Writing');
  });

  it('sends someone out, with or without a way back', async () => {
    const ida = person('Ida');
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(PeoplePanel);
    fixture.componentRef.setInput('people', [person('Jonas'), ida]);
    const said: unknown[] = [];
    fixture.componentInstance.wish.subscribe((wish) => said.push(wish));
    const harness = await TestbedHarnessEnvironment.harnessForFixture(fixture, PeoplePanelHarness);
    await harness.choose(1, 'Send out, may knock again');
    await harness.choose(1, 'Send out for this lesson');
    await harness.choose(1, 'Hand over the lead');
    expect(said).toEqual([
      { kind: 'door', who: ida.id, word: 'out' },
      { kind: 'door', who: ida.id, word: 'barred' },
      { kind: 'lead', who: ida.id },
    ]);
  });
});
