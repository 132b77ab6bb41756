import { newId } from '@cuaderno/core/id';
import type { Arrival } from '@cuaderno/core/features';
import { Screen } from '../../testing/screen';
import { DoorList } from './door-list';

const arrival = (name: string, more: Partial<Arrival> = {}): Arrival => ({
  id: newId(),
  name,
  nameOrdinal: 1,
  state: 'waiting',
  since: 0,
  known: null,
  guest: null,
  role: 'student',
  ...more,
});

describe('who is at the door', () => {
  const show = async (arrivals: readonly Arrival[]) => {
    const said: unknown[] = [];
    const screen = await Screen.show(DoorList, { arrivals }, {});
    screen.fixture.componentInstance.word.subscribe((word) => said.push(word));
    return { screen, said };
  };
  it('is let in or not, one by one or all at once', async () => {
    const [ida, other] = [arrival('Ida'), arrival('Ida', { nameOrdinal: 2 })];
    const { screen, said } = await show([ida, other]);
    await screen.press('Let Ida (2) in');
    await screen.press('Tell Ida “not now”');
    await screen.press('Let all in');
    expect(said).toEqual([
      { who: other.id, word: 'in' },
      { who: ida.id, word: 'not-now' },
      { who: 'all', word: 'in' },
    ]);
  });

  it('says what helps to tell who it is', async () => {
    const { screen } = await show([
      arrival('Ida', { known: 'Ida' }),
      arrival('Bear', { known: 'Jonas' }),
      arrival('Noor'),
      arrival('Liv', { guest: 'Aunt Liv' }),
    ]);
    for (const words of [
      'was here before',
      'was here before as Jonas',
      'not here before',
      'came by the link for Aunt Liv',
    ])
      expect(screen.text).toContain(words);
  });

  it('lets somebody in to help or to watch, where one may say so', async () => {
    const [ida, liv] = [arrival('Ida'), arrival('Liv', { guest: 'Aunt Liv', role: 'watcher' })];
    const { screen, said } = await show([ida, liv]);
    expect(screen.text).toContain('came by the link for Aunt Liv, to watch');
    expect(screen.button('Ida as helper or watcher…')).toBeUndefined();
    screen.fixture.componentRef.setInput('givesRoles', true);
    await screen.settles();
    const choose = async (of: string, way: string): Promise<string[]> => {
      await screen.press(`${of} as helper or watcher…`);
      const ways = [...document.querySelectorAll<HTMLElement>('.p-menu-item-link')];
      ways.find(({ textContent }) => textContent?.trim() === way)?.click();
      await screen.settles();
      return ways.map(({ textContent }) => textContent!.trim());
    };
    expect(await choose('Ida', 'Let in as a helper')).toEqual([
      'Let in as a helper',
      'Let in as a watcher',
    ]);
    expect(await choose('Liv', 'Let in as a student')).toEqual([
      'Let in as a student',
      'Let in as a helper',
    ]);
    expect(said).toEqual([
      { who: ida.id, word: 'in', as: 'helper' },
      { who: liv.id, word: 'in', as: 'student' },
    ]);
  });

  it('gives anyone who was sent out a way back, or takes it', async () => {
    const [out, barred] = [arrival('Ida', { state: 'out' }), arrival('Jonas', { state: 'barred' })];
    const { screen, said } = await show([out, barred]);
    expect(screen.text).toContain('Sent out: 2');
    await screen.press('Keep out');
    await screen.press('May knock');
    expect(said).toEqual([
      { who: out.id, word: 'barred' },
      { who: barred.id, word: 'out' },
    ]);
  });

  it('takes no room when nobody is there', async () => {
    expect((await show([])).screen.text).toBe('');
  });
});
