import { TestBed } from '@angular/core/testing';
import { isSame, isSingle } from './chord';
import { Shortcuts } from './shortcuts';
import { SHORTCUTS } from './table';

describe('shortcuts', () => {
  beforeEach(() => localStorage.clear());
  afterEach(() => localStorage.clear());

  it('have a name each, and single keys that do one thing each', () => {
    const names = SHORTCUTS.map(({ name }) => name);
    expect(new Set(names).size).toBe(names.length);
    const singles = SHORTCUTS.flatMap(({ chords }) => chords.filter(isSingle));
    const twice = singles.filter((one, at) => singles.slice(at + 1).some((o) => isSame(o, one)));
    expect(twice).toEqual([]);
  });

  it('say their key in tips, as it was changed, and none where it is turned off', async () => {
    const shortcuts = TestBed.inject(Shortcuts);
    expect(shortcuts.tip('Pen', 'pen')).toBe('Pen (P)');
    await shortcuts.change({ singleKeys: true, changed: { pen: 'q', eraser: null } });
    expect(shortcuts.tip('Pen', 'pen')).toBe('Pen (Q)');
    expect(shortcuts.tip('Eraser', 'eraser')).toBe('Eraser');
    await shortcuts.change({ singleKeys: false, changed: { pen: 'q' } });
    expect(shortcuts.tip('Pen', 'pen')).toBe('Pen');
    expect(shortcuts.aria('pen')).toBeNull();
    expect(shortcuts.of('undo')).toEqual(['Ctrl+Z']);
  });

  it('know what a key does already, also while single keys are turned off', async () => {
    const shortcuts = TestBed.inject(Shortcuts);
    expect(shortcuts.takenBy('h', 'pen')?.name).toBe('highlighter');
    expect(shortcuts.takenBy('p', 'pen')).toBeNull();
    await shortcuts.change({ singleKeys: false, changed: { highlighter: 'j' } });
    expect(shortcuts.takenBy('h', 'pen')).toBeNull();
    expect(shortcuts.takenBy('j', 'pen')?.name).toBe('highlighter');
  });

  it('are those of an account while somebody is signed in, and this browser’s again afterwards', async () => {
    const shortcuts = TestBed.inject(Shortcuts);
    const kept: unknown[] = [];
    const keep = (settings: unknown): Promise<void> => {
      kept.push(settings);
      return Promise.resolve();
    };
    shortcuts.keepBy(keep, { singleKeys: true, changed: { pen: 'a' } });
    expect(shortcuts.of('pen')).toEqual(['a']);
    await shortcuts.change({ singleKeys: false, changed: {} });
    expect(kept).toEqual([{ singleKeys: false, changed: {} }]);
    shortcuts.keepInBrowser();
    expect(shortcuts.of('pen')).toEqual(['p']);
  });

  it('stay with this browser for who has no account, and take nothing of what isn’t one', async () => {
    await TestBed.inject(Shortcuts).change({ singleKeys: true, changed: { pen: 'q' } });
    TestBed.resetTestingModule();
    expect(TestBed.inject(Shortcuts).of('pen')).toEqual(['q']);
    TestBed.resetTestingModule();
    localStorage.setItem('cuaderno.shortcuts', '{"singleKeys":"no","changed":{"pen":"many"}}');
    expect(TestBed.inject(Shortcuts).of('pen')).toEqual(['p']);
    // What is no own entry of what was changed is none.
    expect(TestBed.inject(Shortcuts).of('constructor' as 'pen')).toEqual([]);
  });
});
