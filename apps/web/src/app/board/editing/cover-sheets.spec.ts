import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { BoardDraft, coversOn, emptyBoard } from '@cuaderno/core/board';
import { newId } from '@cuaderno/core/id';
import { apply, operation } from '@cuaderno/core/ops';
import type { Board } from '@cuaderno/core/board';
import type { Change } from '@cuaderno/core/ops';
import { addPages, somePages } from '@cuaderno/core/testing';
import { CoverSheets } from './cover-sheets';

describe('cover sheets', () => {
  const [page] = somePages(1);
  let board: Board;

  function make(changes: readonly Change[]): void {
    const draft = new BoardDraft(board);
    for (const change of changes)
      apply(operation(change), draft, { by: newId(), at: 1, lesson: null });
    board = draft.done();
  }

  async function opened() {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(CoverSheets);
    fixture.componentRef.setInput('board', board);
    fixture.componentRef.setInput('page', page!.id);
    fixture.componentInstance.done.subscribe((changes) => {
      make(changes);
      fixture.componentRef.setInput('board', board);
    });
    await fixture.whenStable();
    const element = fixture.nativeElement as HTMLElement;
    const press = async (name: string): Promise<void> => {
      const button = [...element.querySelectorAll('button')].find(
        (one) => (one.getAttribute('aria-label') ?? one.textContent).trim() === name,
      );
      expect(button).withContext(name).toBeDefined();
      button?.click();
      await fixture.whenStable();
    };
    return { fixture, element, press };
  }

  const here = () => coversOn(board.pages.get(page!.id)!);

  beforeEach(() => {
    board = emptyBoard(newId());
    make([addPages([page!])]);
  });

  it('are laid in the colour that was chosen, whole or in two', async () => {
    const { press } = await opened();
    await press('Reed');
    await press('One sheet');
    await press('Two, side by side');
    expect(here().map(({ tint }) => tint)).toEqual(Array(3).fill('#dff2e1'));
  });

  it('are lifted and laid again one by one, and say where they lie and what is on them', async () => {
    const { element, press } = await opened();
    await press('Two, one above the other');
    await press('Take off: Upper sheet');
    expect(here().map(({ lifted }) => lifted ?? false)).toEqual([true, false]);
    expect(element.textContent).toContain('taken off, empty');
    await press('Lay again: Upper sheet');
    expect(here().some(({ lifted }) => lifted)).toBeFalse();
    await press('Take away: Lower sheet');
    expect(here().length).toBe(1);
  });

  it('are laid and lifted by one key, in turns', async () => {
    const { fixture } = await opened();
    const flip = async () => {
      fixture.componentInstance.flip();
      await fixture.whenStable();
      return here().map(({ lifted }) => lifted ?? false);
    };
    expect(await flip()).toEqual([false]);
    expect(await flip()).toEqual([true]);
    expect(await flip()).toEqual([false]);
  });
});
