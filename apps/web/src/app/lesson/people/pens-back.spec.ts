import { newId } from '@cuaderno/core/id';
import type { Person } from '@cuaderno/core/features';
import type { Trust } from '@cuaderno/core/permissions';
import { pretendPerson } from '../../live/pretend-person';
import { Screen } from '../../testing/screen';
import { PensBack } from './pens-back';

const ida = (trust: Trust): Person => pretendPerson({ id: newId(), name: 'Ida', trust });

describe('taking all pens back', () => {
  async function show(people: readonly Person[], late: Trust): Promise<HTMLButtonElement> {
    const screen = await Screen.show(PensBack, { people, late, short: true }, {});
    return screen.button('Take all pens back')!;
  }

  it('is one touch, when anyone has one', async () => {
    const screen = await Screen.show(PensBack, { people: [ida('view'), ida('hands')] }, {});
    let taken = 0;
    screen.fixture.componentInstance.taken.subscribe(() => taken++);
    await screen.press('Take all pens back');
    expect(taken).toBe(1);
  });

  it('takes in what who comes late would have', async () => {
    expect((await show([], 'write')).disabled).toBeFalse();
  });

  it('rests where nobody has one; a tutor’s own is none of them', async () => {
    const maren = pretendPerson({ id: newId(), name: 'Maren', role: 'tutor', trust: 'hands' });
    expect((await show([maren, ida('view')], 'view')).disabled).toBeTrue();
  });
});
