import { BoardDraft, emptyBoard } from '@cuaderno/core/board';
import type { Board } from '@cuaderno/core/board';
import { newId } from '@cuaderno/core/id';
import type { Id } from '@cuaderno/core/id';
import { apply } from '@cuaderno/core/ops';
import { addPages, somePages } from '@cuaderno/core/testing';
import { Screen } from '../../testing/screen';
import { PageJump } from './page-jump';

const specs = somePages(5).map((page, i) => ({ ...page, hidden: i === 3 }));
const ids = specs.map(({ id }) => id);

function board(): Board {
  const draft = new BoardDraft(emptyBoard(newId()));
  apply(addPages(specs), draft, { by: newId(), at: 1, lesson: null });
  return draft.done();
}

describe('the way to another page', () => {
  let screen: Screen<PageJump>;
  let went: Id[];

  beforeEach(async () => {
    went = [];
    screen = await Screen.show(PageJump, { board: board(), current: ids[0] }, {});
    screen.fixture.componentInstance.chosen.subscribe((id) => went.push(id));
  });
  const jump = async (number: string): Promise<HTMLInputElement> => {
    const field = screen.element.querySelector('input')!;
    field.focus();
    field.value = number;
    field.dispatchEvent(
      new KeyboardEvent('keydown', { code: 'Enter', key: 'Enter', bubbles: true }),
    );
    await screen.settles();
    return field;
  };

  it('turns to the next page and back, as far as there are any', async () => {
    expect(screen.button('Previous page')!.disabled).toBeTrue();
    await screen.press('Next page');
    expect(went).toEqual([ids[1]!]);
    screen.fixture.componentRef.setInput('current', ids[4]);
    await screen.settles();
    expect(screen.button('Next page')!.disabled).toBeTrue();
    await screen.press('Previous page');
    expect(went).toEqual([ids[1]!, ids[3]!]);
  });

  it('counts what students are shown, and goes to a number as the class counts', async () => {
    expect(screen.text).toContain('of 4 (+1)');
    // The hidden one keeps its number in brackets for the tutor.
    await jump('3');
    expect(went).toEqual([ids[2]!]);
    expect((await jump('77')).value).toBe('1');
    expect(went.length).toBe(1);
  });

  it('makes a page for who may', async () => {
    expect(screen.button('Empty page')).toBeUndefined();
    screen.fixture.componentRef.setInput('mayAdd', true);
    await screen.settles();
    let made = 0;
    screen.fixture.componentInstance.added.subscribe(() => made++);
    await screen.press('Empty page');
    expect(made).toBe(1);
  });
});
