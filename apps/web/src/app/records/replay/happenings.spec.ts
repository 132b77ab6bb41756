import { NOTHING_BESIDE } from '@cuaderno/core/features';
import type { Attendance } from '../../api/shapes';
import { happeningsOf } from './happenings';

const person = (id: string, name: string, nameOrdinal = 1): Attendance => ({
  id,
  name,
  nameOrdinal,
  role: id === 'maren' ? 'tutor' : 'student',
  spans: [],
});
const people = [person('maren', 'Maren'), person('ida', 'Ida'), person('other', 'Ida', 2)];
const none = NOTHING_BESIDE;
const numbers = (page: string): number | null => (page === 'gone' ? null : Number(page));

describe('what happened beside the pages', () => {
  it('is told in sentences, in the order of time, two of one name told apart', () => {
    const told = happeningsOf(
      {
        ...none,
        chat: [
          { by: 'ida', to: 'all', text: 'A saucepan!', at: 5 },
          { by: 'other', to: 'tutor', text: 'I can’t see it.', at: 6 },
          { by: 'maren', to: 'other', text: 'Try at ten.', at: 8 },
        ],
        gestures: [
          { by: 'other', what: 'hand', at: 3 },
          { by: 'ida', what: 'got-it', at: 7 },
        ],
        turns: [{ by: 'maren', page: '2', at: 1 }],
      },
      people,
      numbers,
    );
    expect(told.map(({ words }) => words)).toEqual([
      'Maren turned to page 2',
      'Ida (2) raised a hand',
      'Ida: “A saucepan!”',
      'Ida (2), to the tutor: “I can’t see it.”',
      'Ida signalled: Got it',
      'Maren, to Ida (2): “Try at ten.”',
    ]);
  });

  it('leaves out hands and signals that are taken down, and pages that were taken out since', () => {
    const told = happeningsOf(
      {
        ...none,
        gestures: [
          { by: 'ida', what: 'hand.down', at: 1 },
          { by: 'ida', what: 'signal.none', at: 2 },
        ],
        turns: [{ by: 'ida', page: 'gone', at: 3 }],
      },
      people,
      numbers,
    );
    expect(told).toEqual([]);
  });
});
