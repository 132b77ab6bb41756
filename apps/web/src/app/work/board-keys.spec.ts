import { ChangeDetectionStrategy, Component, provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { BoardKeys, Opening } from './board-keys';

@Component({
  selector: 'cua-some-board',
  template: '<button class="pen">Pen</button>',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
class SomeBoard {
  readonly keys = new BoardKeys();
}

describe('keys', () => {
  let board: SomeBoard;
  let pen: HTMLButtonElement;
  let elsewhere: HTMLButtonElement;

  beforeEach(() => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(SomeBoard);
    document.body.append(fixture.nativeElement as HTMLElement);
    board = fixture.componentInstance;
    pen = (fixture.nativeElement as HTMLElement).querySelector('button')!;
    elsewhere = document.createElement('button');
    document.body.append(elsewhere);
  });
  afterEach(() => elsewhere.remove());

  it('that are letters are the board’s until something else is touched, and again when it is', () => {
    expect(board.keys.areMeant).toBeTrue();
    // Safari gives no focus to a button that is pressed.
    elsewhere.dispatchEvent(new PointerEvent('pointerdown', { bubbles: true }));
    expect(board.keys.areMeant).toBeFalse();
    pen.focus();
    expect(board.keys.areMeant).toBeTrue();
    elsewhere.focus();
    expect(board.keys.areMeant).toBeFalse();
    // A picture of a page is as good as the page.
    pen.focus();
    elsewhere.dataset['keys'] = 'board';
    elsewhere.focus();
    expect(board.keys.areMeant).toBeTrue();
  });

  it('rest while something may be opening, and while a dialog lies over all', () => {
    const opening = TestBed.inject(Opening);
    const now = (): number => performance.now();
    expect(opening.isOpening(now())).toBeFalse();
    elsewhere.click();
    expect(opening.isOpening(now())).toBeTrue();
    expect(opening.isOpening(now() + 2000)).toBeFalse();
    // Who touches the board meanwhile means the board.
    elsewhere.click();
    pen.focus();
    expect(opening.isOpening(now())).toBeFalse();
    const dialog = document.createElement('dialog');
    document.body.append(dialog);
    dialog.showModal();
    expect(opening.isOpening(now() + 2000)).toBeTrue();
    dialog.remove();
  });
});
