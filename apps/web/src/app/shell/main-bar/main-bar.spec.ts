import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { problem, Screen } from '../../testing/screen';
import { MainBar } from './main-bar';

const ME = { tutor: { id: 't', name: 'Maren', zone: null }, setUp: true, demo: false };

/** A course as Today has it. */
function course(name: string, retiredAt: number | null = null): object {
  return { id: name.toLowerCase(), name, retiredAt };
}

describe('the bar of the main screens', () => {
  const names = (element: Element): string[] =>
    [...element.querySelectorAll('nav a, nav button')].map((one) => one.textContent.trim());

  it('leads to each of them, and says who is signed in', async () => {
    const { element } = await Screen.show(MainBar, {}, { 'GET /me': ME });
    expect(names(element)).toEqual([
      ...['Today', 'Week', 'Courses', 'Records', 'Materials', 'Hours', 'Mailbox', 'Maren'],
    ]);
  });

  it('says where the tutor is', async () => {
    const screen = await Screen.show(MainBar, {}, { 'GET /me': ME });
    screen.went.and.callThrough();
    TestBed.inject(Router).resetConfig([{ path: 'week', children: [] }]);
    await TestBed.inject(Router).navigateByUrl('/week?from=2026-11-30');
    await screen.settles();
    const current = screen.element.querySelectorAll('[aria-current=page]');
    expect([...current].map((one) => one.textContent.trim())).toEqual(['Week']);
    expect(screen.element.querySelector('.menu')!.textContent.trim()).toBe('Week');
  });

  it('lists the courses that go on, and tries again where they can’t be had', async () => {
    const all = { courses: [course('Tides'), course('Sky', 1)], records: [] };
    let answer: unknown = problem('busy', 'The server is busy.');
    const answers = { 'GET /me': ME, 'GET /today': () => answer };
    const screen = await Screen.show(MainBar, {}, answers);
    await screen.press('Courses');
    expect(screen.text).toContain('The server is busy.');
    answer = all;
    await screen.press('Try again');
    const links = [...screen.element.querySelectorAll('cua-popup a')];
    expect(links.map((link) => link.getAttribute('href'))).toContain('/courses/tides');
    expect(screen.text).not.toContain('Sky');
  });

  it('signs out, and says if that can’t be', async () => {
    let answer: unknown = problem('busy', 'The server is busy.');
    const answers = { 'GET /me': ME, 'POST /sign-out': () => answer };
    const screen = await Screen.show(MainBar, {}, answers);
    await screen.press('Maren');
    await screen.press('Sign out');
    expect(screen.text).toContain('The server is busy.');
    answer = null;
    await screen.press('Sign out');
    expect(screen.address).toBe('/sign-in');
  });
});
