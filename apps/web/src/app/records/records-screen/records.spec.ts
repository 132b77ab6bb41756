import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import type { FoundRecord } from '../../api/shapes';
import { problem, Screen } from '../../testing/screen';
import { RecordsScreen } from './records';

const record: FoundRecord['record'] = {
  lesson: 'l1',
  course: 'c1',
  courseName: 'Tides',
  title: 'Ebb',
  openedAt: new Date(2026, 10, 24, 16, 30).getTime(),
  closedAt: new Date(2026, 10, 24, 17, 20).getTime(),
  pageCount: 2,
  people: ['Ida'],
  hasSummary: true,
  until: null,
};
const answer = (...found: FoundRecord[]) => ({ found, more: false });
const students = { students: ['Ida', 'Noor'] };
const nothing = { deletions: [] };
const today = { courses: [{ id: 'c1', name: 'Tides' }], records: [] };

describe('the records', () => {
  it('are all there at first, and say what to do where there are none', async () => {
    const screen = await Screen.show(
      RecordsScreen,
      {},
      {
        'GET /records': answer({ record, places: [] }),
        'GET /today': today,
        'GET /students': students,
        'GET /students/deletions': nothing,
      },
    );
    expect(screen.text).toContain('1 record');
    expect(screen.text).toContain('Tue, 24 Nov 2026 · Tides · 50 min · Ida');
    TestBed.resetTestingModule();
    const empty = await Screen.show(
      RecordsScreen,
      {},
      {
        'GET /records': answer(),
        'GET /today': today,
        'GET /students': students,
        'GET /students/deletions': nothing,
      },
    );
    expect(empty.text).toContain('When you close a lesson, its record appears here.');
  });

  it('are found by what the address says, days being those of this machine', async () => {
    const from = new Date(2026, 10, 1).getTime();
    const until = new Date(2026, 10, 25).getTime();
    const places: FoundRecord['places'] = [
      { source: 'page', page: 'p2', number: 2, before: 'the ', found: 'ebb', after: ' begins' },
      { source: 'until', page: null, number: null, before: 'Draw the ', found: 'ebb', after: '' },
    ];
    const screen = await Screen.show(
      RecordsScreen,
      { words: 'ebb', student: 'Ida', from: '2026-11-01', until: '2026-11-24' },
      {
        [`GET /records?words=ebb&student=Ida&from=${from}&until=${until}`]: answer({
          record,
          places,
        }),
        'GET /today': today,
        'GET /students': students,
        'GET /students/deletions': nothing,
      },
    );
    const links = [...screen.element.querySelectorAll<HTMLAnchorElement>('.places a')];
    expect(links.map((link) => link.textContent.replace(/\s+/g, ' ').trim())).toEqual([
      'Page 2 the ebb begins',
      'Until next time Draw the ebb',
    ]);
    expect(links.map((link) => link.getAttribute('href'))).toEqual([
      '/records/l1?page=p2',
      '/records/l1',
    ]);
  });

  it('are looked for at the ends of a run of keys, with all that was wanted meanwhile', async () => {
    const screen = await Screen.show(
      RecordsScreen,
      {},
      {
        'GET /records': answer(),
        'GET /today': today,
        'GET /students': students,
        'GET /students/deletions': nothing,
      },
    );
    const went = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    jasmine.clock().install();
    const words = screen.element.querySelector<HTMLInputElement>('input[name=words]')!;
    for (const text of ['e', 'eb', 'ebb']) {
      words.value = text;
      words.dispatchEvent(new Event('input'));
    }
    void screen.choose('Course', 'c1');
    jasmine.clock().tick(1000);
    jasmine.clock().uninstall();
    expect(went.calls.allArgs().map(([, extras]) => extras?.queryParams)).toEqual([
      { words: 'e', course: null, student: null, from: null, until: null },
      { words: 'ebb', course: 'c1', student: null, from: null, until: null },
    ]);
  });

  it('say so where nothing fits, or nothing can be found just now', async () => {
    const screen = await Screen.show(
      RecordsScreen,
      { words: 'moon' },
      {
        'GET /records?words=moon': answer(),
        'GET /today': today,
        'GET /students': students,
        'GET /students/deletions': nothing,
      },
    );
    expect(screen.text).toContain('No record fits all of that.');
    TestBed.resetTestingModule();
    const lost = await Screen.show(
      RecordsScreen,
      { course: 'c1' },
      {
        'GET /records?course=c1': problem('slow-down', 'That was tried too often.'),
        'GET /courses/c1/attendance': { lessons: [] },
        'GET /today': today,
        'GET /students': students,
        'GET /students/deletions': nothing,
      },
    );
    expect(lost.text).toContain('That was tried too often.');
  });
});
