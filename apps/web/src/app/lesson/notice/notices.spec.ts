import { TestBed } from '@angular/core/testing';
import { Notices } from './notices';

describe('notices', () => {
  const fresh = (): Notices => {
    TestBed.resetTestingModule();
    return TestBed.inject(Notices);
  };
  beforeEach(() => localStorage.removeItem('cuaderno.notices'));
  afterEach(() => localStorage.removeItem('cuaderno.notices'));

  it('are seen for a while where that is wished, and kept as wished on this machine', () => {
    jasmine.clock().install();
    try {
      const notices = fresh();
      notices.tell('left', 'Ida left');
      expect(notices.line()).toBe('Ida left');
      jasmine.clock().tick(8001);
      expect(notices.line()).toBeNull();
      notices.wish('left', 'sight', false);
      TestBed.tick();
      const later = fresh();
      later.tell('left', 'Ida left');
      expect(later.line()).toBeNull();
      expect(later.wishes().door).toEqual({ sound: true, sight: true, behind: true });
    } finally {
      jasmine.clock().uninstall();
    }
  });

  it('leave the screen when what they say is past, and no other does', () => {
    const notices = fresh();
    notices.wish('door', 'sound', false);
    notices.tell('door', 'Ida is at the door');
    notices.settle('hand');
    expect(notices.line()).toBe('Ida is at the door');
    notices.settle('door');
    expect(notices.line()).toBeNull();
  });

  it('go to the desktop only while the window is behind, and only if the browser may', () => {
    const shown: string[] = [];
    class Pretend {
      static permission = 'granted';
      constructor(words: string) {
        shown.push(words);
      }
    }
    const real = window.Notification;
    (window as { Notification: unknown }).Notification = Pretend;
    const hidden = spyOnProperty(document, 'hidden').and.returnValue(false);
    try {
      const notices = fresh();
      notices.wish('door', 'sound', false);
      notices.tell('door', 'Ida is at the door');
      hidden.and.returnValue(true);
      notices.tell('door', 'Jonas is at the door');
      Pretend.permission = 'denied';
      notices.tell('door', 'Noor is at the door');
      expect(shown).toEqual(['Jonas is at the door']);
    } finally {
      window.Notification = real;
    }
  });
});
