import { TestBed } from '@angular/core/testing';
import { Screen } from '../../testing/screen';
import { BesideBoard } from './beside-board';
import { BesideColumn } from './beside-column';

describe('the column beside the page', () => {
  let screen: Screen<BesideColumn>;
  let beside: BesideBoard;

  async function show(inLesson: boolean): Promise<void> {
    TestBed.resetTestingModule();
    screen = await Screen.show(BesideColumn, {}, {}, [BesideBoard]);
    beside = screen.fixture.debugElement.injector.get(BesideBoard);
    beside.inLesson.set(inLesson);
    await screen.settles();
  }
  const isFolded = (): boolean => screen.element.classList.contains('folded');
  beforeEach(() => localStorage.clear());

  it('has the class open in a lesson, and nothing between lessons', async () => {
    await show(true);
    expect(beside.open()).toBe('people');
    beside.inLesson.set(false);
    await screen.settles();
    expect(beside.open()).toBeNull();
    expect(isFolded()).toBeTrue();
    expect(screen.button('People')).toBeUndefined();
    expect(screen.button('Private notes')).toBeDefined();
  });

  it('opens one thing in place of another, and folds by the one that is open', async () => {
    await show(true);
    await screen.press('Private notes');
    expect(beside.open()).toBe('notes');
    expect(screen.button('People')!.getAttribute('aria-pressed')).toBe('false');
    await screen.press('Private notes');
    expect(isFolded()).toBeTrue();
  });

  it('has the class again when something was found', async () => {
    await show(true);
    beside.show('find');
    beside.back();
    expect(beside.open()).toBe('people');
    expect(localStorage.getItem('cuaderno.beside.lesson')).toBe('people');
  });

  it('is found as it was left, in lessons by itself and between them by itself; but for finding', async () => {
    await show(true);
    await screen.press('Chat');
    beside.inLesson.set(false);
    await screen.settles();
    await screen.press('Materials');
    await screen.press('Find on this board');
    await show(true);
    expect(beside.open()).toBe('chat');
    beside.inLesson.set(false);
    expect(beside.open()).toBe('materials');
  });

  it('counts who waits, hands and messages, also where it is folded', async () => {
    await show(true);
    beside.show(null);
    screen.fixture.componentRef.setInput('waiting', { door: 1, hands: 2, messages: 3 });
    await screen.settles();
    expect(screen.button('People, 1 waiting, 2 hands')!.textContent).toContain('3');
    expect(screen.button('Chat, 3 unread')).toBeDefined();
  });

  it('takes nothing from storage that is none of its own', async () => {
    localStorage.setItem('cuaderno.beside.lesson', 'elsewhere');
    await show(true);
    expect(beside.open()).toBe('people');
  });
});
