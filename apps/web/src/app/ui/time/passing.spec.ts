import { TestBed } from '@angular/core/testing';
import { Passing } from './passing';

describe('what is said for a while', () => {
  beforeEach(() => jasmine.clock().install());
  afterEach(() => jasmine.clock().uninstall());

  it('passes by itself, or when it isn’t so any more', () => {
    const words = TestBed.runInInjectionContext(() => new Passing<string>(1000));
    expect(words.now()).toBeNull();
    words.say('Ida came in');
    expect(words.now()).toBe('Ida came in');
    jasmine.clock().tick(999);
    expect(words.now()).toBe('Ida came in');
    jasmine.clock().tick(1);
    expect(words.now()).toBeNull();
    words.say('Noor came in');
    words.clear();
    expect(words.now()).toBeNull();
  });

  it('is said for its whole time, also where another was said before', () => {
    const words = TestBed.runInInjectionContext(() => new Passing<string>(1000));
    words.say('Ida came in');
    jasmine.clock().tick(800);
    words.say('Noor came in');
    jasmine.clock().tick(800);
    expect(words.now()).toBe('Noor came in');
    jasmine.clock().tick(200);
    expect(words.now()).toBeNull();
  });
});
