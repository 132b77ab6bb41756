import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { BoardSession } from '../../live/board-session';
import type { Abilities } from '../editing/abilities';
import type { CoverSheets } from '../editing/cover-sheets';
import type { PageWriting } from '../editing/page-writing';
import type { Stage } from '../stage/stage';
import { Tools } from '../tool/tool';
import type { ByKey } from './arrange-keys';
import { Shortcuts } from '../shortcuts/shortcuts';
import { WorkKeys } from './work-keys';

describe('keys of a board', () => {
  /** What was asked for, in its order. */
  let asked: string[];
  let tools: Tools;
  let keys: WorkKeys;
  const writes = signal(true);
  const lights = signal(true);
  const lamp = signal<object | null>(null);
  const covers = signal<CoverSheets | undefined>(undefined);
  const pageOnly = signal(false);

  beforeEach(() => {
    localStorage.clear();
    asked = [];
    writes.set(true);
    lights.set(true);
    lamp.set(null);
    covers.set(undefined);
    pageOnly.set(false);
    tools = TestBed.runInInjectionContext(() => new Tools());
    const session = {
      undo: () => asked.push('undo'),
      redo: () => asked.push('redo'),
      features: { pointing: { shown: () => ({ arrows: [], lamp: lamp() }) } },
    } as unknown as BoardSession;
    const view = {
      turn: (by: number) => asked.push(`turn ${by}`),
      zoomBy: (by: number) => asked.push(`zoom ${by}`),
      fitPage: () => asked.push('whole page'),
    };
    const stage = { view } as unknown as Stage;
    const abilities = { write: writes, light: lights, pointOn: () => () => false };
    keys = new WorkKeys(
      {
        session: () => session,
        stage: () => stage,
        page: () => 'page',
        covers,
        lightOff: () => asked.push('lamp out'),
        pageOnly,
        showShortcuts: () => asked.push('list'),
      },
      TestBed.inject(Shortcuts),
      tools,
      abilities as unknown as Abilities,
      { takes: () => false } as unknown as PageWriting,
      { tool: () => tools.tool(), page: () => 'page' } as unknown as ByKey,
    );
  });
  afterEach(() => localStorage.clear());

  /** @returns whether the browser is kept from doing something of its own with it */
  function press(key: string, more: KeyboardEventInit = {}): boolean {
    const event = new KeyboardEvent('keydown', { key, cancelable: true, bubbles: true, ...more });
    document.body.addEventListener('keydown', (heard) => keys.press(heard), { once: true });
    document.body.dispatchEvent(event);
    return event.defaultPrevented;
  }

  it('turn pages, whatever has the focus', () => {
    expect([press('PageDown'), press('PageUp')]).toEqual([true, true]);
    expect(asked).toEqual(['turn 1', 'turn -1']);
  });

  it('undo and redo, by either of the usual ways', () => {
    press('z', { ctrlKey: true });
    press('Z', { ctrlKey: true, shiftKey: true });
    press('y', { metaKey: true });
    expect(asked).toEqual(['undo', 'redo', 'redo']);
    // Another of the browser's own stays its own.
    expect(press('r', { ctrlKey: true })).toBeFalse();
  });

  it('put the lamp out, where there is one and this person may', () => {
    press('Escape');
    lamp.set({});
    lights.set(false);
    press('Escape');
    expect(asked).toEqual([]);
    lights.set(true);
    press('Escape');
    expect(asked).toEqual(['lamp out']);
  });

  it('lay a cover sheet and take it off, for those who lay them', () => {
    expect(() => press('o')).not.toThrow();
    covers.set({ flip: () => asked.push('flip') } as unknown as CoverSheets);
    press('o');
    press('o', { shiftKey: true });
    expect(asked).toEqual(['flip']);
  });

  it('zoom whatever has the focus, and show the page alone until Escape', () => {
    press('+');
    press('f');
    press('v');
    expect(asked).toEqual(['zoom 1.25', 'whole page']);
    expect(pageOnly()).toBeTrue();
    press('Escape');
    expect(pageOnly()).toBeFalse();
    press('?', { shiftKey: true });
    expect(asked.at(-1)).toBe('list');
  });

  it('do nothing by a letter alone where those are turned off, and all else as before', async () => {
    tools.tool.set('hand');
    await TestBed.inject(Shortcuts).change({ singleKeys: false, changed: {} });
    for (const key of ['p', '1', '+', 'v', '?']) press(key);
    expect([tools.tool(), pageOnly(), asked.length]).toEqual(['hand', false, 0]);
    press('z', { ctrlKey: true });
    press('/', { ctrlKey: true });
    expect(asked).toEqual(['undo', 'list']);
  });

  it('take a tool by the key that was chosen for it', async () => {
    tools.tool.set('hand');
    await TestBed.inject(Shortcuts).change({ singleKeys: true, changed: { pen: 'q' } });
    press('p');
    expect(tools.tool()).toBe('hand');
    press('Q', { shiftKey: false });
    expect(tools.tool()).toBe('pen');
  });

  it('take a tool in hand, and none by which nothing could be done', () => {
    tools.tool.set('hand');
    press('p');
    expect(tools.tool()).toBe('pen');
    writes.set(false);
    press('e');
    expect(tools.tool()).toBe('pen');
  });
});
