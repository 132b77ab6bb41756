import * as fc from 'fast-check';
import { newId } from '../id/index.js';
import { audienceOf, maySee } from './audience.js';
import type { Audience, Viewer } from './audience.js';

const [ana, jonas, maren] = [newId(), newId(), newId()];
const viewers: readonly Viewer[] = [
  { id: ana, role: 'student' },
  { id: jonas, role: 'student' },
  { id: maren, role: 'tutor' },
];
const who = (audience: Audience): string[] =>
  viewers.filter((viewer) => maySee(viewer, audience)).map(({ id }) => id);

describe('what is for some', () => {
  it('is seen by them, and by the tutor in whose lesson it is', () => {
    expect(who('everyone')).toEqual([ana, jonas, maren]);
    expect(who('tutors')).toEqual([maren]);
    expect(who(new Set([jonas]))).toEqual([jonas, maren]);
    expect(who(new Set())).toEqual([maren]);
  });

  it('is never seen by a student whom it doesn’t name', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.constantFrom(ana, jonas, maren)),
        (named) => named.includes(ana) === maySee({ id: ana, role: 'student' }, new Set(named)),
      ),
    );
  });

  it('on a page that is hidden, taken out or not there yet is for tutors', () => {
    expect(audienceOf({})).toBe('everyone');
    expect(audienceOf({ hidden: true })).toBe('tutors');
    expect(audienceOf({ removed: { by: maren, at: 0 } as never })).toBe('tutors');
    expect(audienceOf(undefined)).toBe('tutors');
  });
});
