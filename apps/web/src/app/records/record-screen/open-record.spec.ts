import { boardSnapshot, emptyBoard } from '@cuaderno/core/board';
import { NOTHING_BESIDE } from '@cuaderno/core/features';
import { pack } from '@cuaderno/core/wire';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Api } from '../../api/api';
import { PretendApi, problem } from '../../testing/screen';
import type { PretendAnswers } from '../../testing/screen';
import { OpenRecord } from './open-record';

const OPENED = Date.UTC(2026, 10, 24, 15, 30);

describe('the record that a screen shows', () => {
  const board = (id: string): Uint8Array => pack(boardSnapshot(emptyBoard(id), 0));
  const person = (id: string, name: string, role: 'tutor' | 'student') => ({
    ...{ id, name, role, nameOrdinal: 1 },
    spans: [{ from: OPENED, to: OPENED + 60_000 }],
  });
  const answer = (lesson: string, title: string, state = 'whole') => ({
    record: {
      ...{ lesson, title, course: 'c1', courseName: 'Sky-watching', pageCount: 0 },
      ...{ openedAt: OPENED, closedAt: OPENED + 60_000 },
    },
    attendance: [person('maren', 'Maren Solheim', 'tutor'), person('ida', 'Ida', 'student')],
    indexing: { state, done: 0, of: 0 },
    ...{ statistics: null, goesOn: null, said: [] },
  });
  const log = (id: string): Uint8Array =>
    pack({ before: boardSnapshot(emptyBoard(id), 0), entries: [] });

  function made(answers: PretendAnswers): OpenRecord {
    const api = new PretendApi({
      'GET /records/l1': answer('l1', 'Orion'),
      'GET /records/l1/board': board('b1'),
      'GET /records/l1/timeline': NOTHING_BESIDE,
      'GET /records/l1/log': log('b1'),
      'GET /records/l2': answer('l2', 'The moon'),
      'GET /records/l2/board': board('b2'),
      ...answers,
    });
    TestBed.configureTestingModule({
      providers: [provideZonelessChangeDetection(), OpenRecord, { provide: Api, useValue: api }],
    });
    return TestBed.inject(OpenRecord);
  }

  it('has what the lesson left at once, and how it came about when that is asked for', async () => {
    const record = made({});
    expect(await record.open('l1')).toBeTrue();
    expect(record.info()?.title).toBe('Orion');
    expect(record.board()?.id).toBe('b1');
    expect(record.people().map(({ label }) => label)).toEqual(['Maren Solheim', 'Ida']);
    expect(record.player()).toBeNull();
    expect(await record.loadReplay()).toBeTrue();
    expect(record.player()).not.toBeNull();
    expect(record.lanes().map(({ label, penDown }) => [label, penDown])).toEqual([
      ['Maren Solheim', 0],
      ['Ida', 0],
    ]);
  });

  it('says what keeps it away, and nothing of it is there', async () => {
    const record = made({ 'GET /records/l1': problem('not-found', 'There is no such record.') });
    expect(await record.open('l1')).toBeFalse();
    expect(record.attempt.problem()?.title).toBe('There is no such record.');
    expect(await record.loadReplay()).toBeFalse();
  });

  it('isn’t given how another lesson came about, however late that is answered', async () => {
    let come!: (bytes: Uint8Array) => void;
    const record = made({
      'GET /records/l1/log': () => new Promise<Uint8Array>((resolve) => (come = resolve)),
    });
    await record.open('l1');
    const loaded = record.loadReplay();
    // The request is on its way.
    await new Promise((next) => setTimeout(next));
    await record.open('l2');
    come(log('b1'));
    await loaded;
    expect(record.info()?.title).toBe('The moon');
    expect(record.player()).toBeNull();
  });

  it('isn’t the one that was opened before it, however late that is answered', async () => {
    let come!: (opened: object) => void;
    const record = made({
      'GET /records/l1': () => new Promise<object>((resolve) => (come = resolve)),
    });
    const first = record.open('l1');
    // The request is on its way.
    await new Promise((next) => setTimeout(next));
    await record.open('l2');
    come(answer('l1', 'Orion'));
    await first;
    expect([record.info()?.title, record.board()?.id]).toEqual(['The moon', 'b2']);
  });

  it('is asked for again until it is written down, and not after', async () => {
    jasmine.clock().install();
    try {
      const states = ['waits', 'goes-on', 'whole'];
      let asked = 0;
      const record = made({
        'GET /records/l1': () => answer('l1', 'Orion', states[Math.min(asked++, 2)]),
      });
      await record.open('l1');
      expect(record.opened()?.indexing.state).toBe('waits');
      for (const state of ['goes-on', 'whole', 'whole', 'whole']) {
        jasmine.clock().tick(700);
        for (let i = 0; i < 10; i++) await Promise.resolve();
        expect(record.opened()?.indexing.state).toBe(state as 'whole');
      }
      expect(asked).toBe(3);
    } finally {
      jasmine.clock().uninstall();
    }
  });
});
