import { CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import { TestBed } from '@angular/core/testing';
import { By } from '@angular/platform-browser';
import { BoardDraft, emptyBoard } from '@cuaderno/core/board';
import { newId } from '@cuaderno/core/id';
import { apply } from '@cuaderno/core/ops';
import type { Board } from '@cuaderno/core/board';
import type { Id } from '@cuaderno/core/id';
import { addPages, somePages } from '@cuaderno/core/testing';
import { PaperSource } from '../drawing/paper-source';
import { Screen } from '../../testing/screen';
import { PageStrip } from './page-strip';
import type { PageWish } from './page-strip';

const specs = somePages(5).map((page, i) => ({ ...page, hidden: i === 3 }));
const ids = specs.map(({ id }) => id);

function board(): Board {
  const draft = new BoardDraft(emptyBoard(newId()));
  apply(addPages(specs), draft, { by: newId(), at: 1, lesson: null });
  return draft.done();
}

describe('the page strip', () => {
  let screen: Screen<PageStrip>;
  let went: Id[];
  let wishes: PageWish[];

  beforeEach(async () => {
    went = [];
    wishes = [];
    screen = await Screen.show(
      PageStrip,
      { board: board(), papers: new PaperSource(), current: ids[0], mayEdit: true },
      {},
    );
    screen.element.style.height = '1400px';
    const list = screen.fixture.debugElement.query(By.directive(CdkVirtualScrollViewport));
    (list.componentInstance as CdkVirtualScrollViewport).checkViewportSize();
    const strip = screen.fixture.componentInstance;
    strip.chosen.subscribe((id) => went.push(id));
    strip.edited.subscribe((wish) => wishes.push(wish));
    await new Promise((done) => requestAnimationFrame(done));
    await screen.settles();
  });

  const picked = (): number[] =>
    [...screen.fixture.componentInstance.picked()].map((id) => ids.indexOf(id)).sort();
  const touch = async (n: number, keys: MouseEventInit = {}): Promise<void> => {
    const entry = screen.element.querySelectorAll<HTMLElement>('.entry')[n]!;
    entry.dispatchEvent(new MouseEvent('click', { bubbles: true, ...keys }));
    await screen.settles();
  };

  /** The items of the menu for what is meant, by their names. */
  const menu = async (): Promise<Map<string, HTMLElement>> => {
    screen.element.querySelector<HTMLElement>('.more')!.click();
    await screen.settles();
    const items = [...document.querySelectorAll<HTMLElement>('[role=menuitem]')];
    return new Map(items.map((one) => [one.textContent.trim(), one]));
  };
  const wish = async (name: string): Promise<void> => {
    (await menu()).get(name)!.querySelector<HTMLElement>('.p-menu-item-content')!.click();
    await screen.settles();
  };

  it('has a menu for the page in view, or for the picture that is asked', async () => {
    await wish('Copy');
    expect(wishes).toEqual(['copy']);
    const third = screen.element.querySelectorAll<HTMLElement>('.entry')[2]!;
    third.dispatchEvent(new MouseEvent('contextmenu', { bubbles: true, cancelable: true }));
    expect(went).toEqual([ids[2]!]);
  });

  it('begins at the page in view', async () => {
    const strip = TestBed.createComponent(PageStrip);
    const inputs = { board: board(), papers: new PaperSource(), current: ids[4] };
    for (const [name, value] of Object.entries(inputs)) strip.componentRef.setInput(name, value);
    const element = strip.nativeElement as HTMLElement;
    element.style.height = '300px';
    await strip.whenStable();
    while (!element.textContent!.includes('Page 5'))
      await new Promise((done) => requestAnimationFrame(done));
    const list = element.querySelector('cdk-virtual-scroll-viewport')!;
    expect(list.scrollTop).toBeGreaterThan(300);
    strip.destroy();
  });

  it('goes to a page with a touch', async () => {
    await touch(1);
    expect(went).toEqual([ids[1]!]);
    expect(picked()).toEqual([]);
  });

  it('picks one more with Ctrl, beside the page in view, and a run with Shift', async () => {
    await touch(2, { ctrlKey: true });
    expect(picked()).toEqual([0, 2]);
    await touch(4, { shiftKey: true });
    expect(picked()).toEqual([0, 2, 3, 4]);
    await touch(3, { ctrlKey: true });
    expect(picked()).toEqual([0, 2, 4]);
    expect(screen.text).toContain('3 picked');
    await touch(1);
    expect(picked()).toEqual([]);
  });

  it('picks with plain touches where there is no keyboard', async () => {
    await wish('Select pages');
    await touch(1);
    await touch(2);
    expect(picked()).toEqual([1, 2]);
    expect(went).toEqual([]);
    await wish('Stop selecting');
    expect(picked()).toEqual([]);
  });

  it('offers to show what is hidden, and says so to who can’t see it', async () => {
    expect(screen.button('Page (4), Page 4, hidden')).toBeDefined();
    expect(screen.button('Show it now')).toBeUndefined();
    screen.fixture.componentRef.setInput('current', ids[3]);
    await screen.settles();
    await screen.press('Show it now');
    expect(wishes).toEqual(['show']);
  });

  it('never offers to take the last page out', async () => {
    await wish('Select pages');
    for (const n of [0, 1, 2, 3, 4]) await touch(n);
    expect((await menu()).get('Remove')!.getAttribute('aria-disabled')).toBe('true');
  });
});
