import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { Waiting } from '@cuaderno/core/features';
import { PretendServer } from '../../live/pretend-socket';
import { Notices } from '../notice/notices';
import { WaitingLine } from './waiting-line';
import { WAITING_DIAL, WhoWaits } from './who-waits';

describe('who waits, on any screen of the tutor', () => {
  let server: PretendServer;
  let waits: WhoWaits;
  let told: jasmine.Spy;
  const title = 'Cuaderno';
  const before = document.title;

  const early: Waiting = { course: 'c1', courseName: 'Tides', board: null, names: ['Ida'] };
  const door: Waiting = { course: 'c2', courseName: 'Cello', board: 'b2', names: ['Noor', 'Tom'] };

  beforeEach(() => {
    document.title = title;
    server = new PretendServer();
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideRouter([]),
        WhoWaits,
        { provide: WAITING_DIAL, useValue: server.dial },
      ],
    });
    told = spyOn(TestBed.inject(Notices), 'tell');
    waits = TestBed.inject(WhoWaits);
    server.line.open();
  });
  afterEach(() => {
    waits.close();
    expect(document.title).toBe(title);
    document.title = before;
  });

  function are(...who: Waiting[]): void {
    server.line.say({ kind: 'waiting', who });
    TestBed.tick();
  }
  const words = (): string[] => told.calls.allArgs().map(([, text]) => text as string);

  it('is told once for each who comes, and counted in the title', () => {
    are(early);
    expect(words()).toEqual(['Ida is waiting for Tides, which isn’t open yet']);
    expect(document.title).toBe(`(1 waiting) ${title}`);
    are({ ...early, names: ['Ida', null] }, door);
    expect(words().slice(1)).toEqual([
      'Someone is waiting for Tides, which isn’t open yet',
      'Noor and Tom are at the door of Cello',
    ]);
    expect(document.title).toBe(`(4 waiting) ${title}`);
    are();
    expect(words().length).toBe(3);
    expect(document.title).toBe(title);
    // Anyone who went and is back is announced again.
    are(early);
    expect(words().length).toBe(4);
  });

  it('is left to the board of the lesson where that is in view', () => {
    waits.board.set('b2');
    are(early, door);
    expect(words().length).toBe(1);
    expect(waits.elsewhere()).toEqual([early]);
  });

  it('stands above the screen, with the way there', async () => {
    are(early, door);
    const fixture = TestBed.createComponent(WaitingLine);
    await fixture.whenStable();
    const element = fixture.nativeElement as HTMLElement;
    expect(element.textContent).toContain('Noor and Tom are at the door of Cello.');
    const links = [...element.querySelectorAll('a')].map((link) => link.getAttribute('href'));
    expect(links).toEqual(['/courses/c1', '/boards/b2']);
  });
});
