import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { TypedAhead } from './typed-ahead';

const frames = (): Promise<void> =>
  new Promise((done) =>
    requestAnimationFrame(() => requestAnimationFrame(() => requestAnimationFrame(() => done()))),
  );

describe('what is typed while something opens', () => {
  let ahead: TypedAhead;
  let button: HTMLButtonElement;
  let field: HTMLInputElement;

  const type = (words: string, at: EventTarget = button): void => {
    for (const key of words) at.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
  };

  beforeEach(() => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    ahead = TestBed.inject(TypedAhead);
    button = document.createElement('button');
    field = document.createElement('input');
    document.body.append(button, field);
  });
  afterEach(() => {
    button.remove();
    field.remove();
  });

  it('rests as shortcuts until what was pressed for is drawn, and comes into the field that opens', async () => {
    expect(ahead.isOpening()).toBeFalse();
    button.click();
    expect(ahead.isOpening()).toBeTrue();
    let told = '';
    field.addEventListener('input', () => (told = field.value));
    type('Low w');
    field.focus();
    expect(field.value).toBe('Low w');
    expect(told).toBe('Low w');
    await frames();
    expect(ahead.isOpening()).toBeFalse();
  });

  it('presses nothing again by a space or Enter among the letters, and takes back what was taken back', async () => {
    let presses = 0;
    button.addEventListener('click', () => presses++);
    button.click();
    type('Low');
    const press = (kind: string, key: string): boolean =>
      button.dispatchEvent(new KeyboardEvent(kind, { key, bubbles: true, cancelable: true }));
    expect(press('keydown', ' ')).toBeFalse();
    expect(press('keyup', ' ')).toBeFalse();
    type('ww');
    press('keydown', 'Backspace');
    expect(press('keydown', 'Enter')).toBeFalse();
    field.focus();
    expect(field.value).toBe('Low w');
    expect(presses).toBe(1);
    await frames();
    expect(press('keydown', ' ')).toBeTrue();
  });

  it('comes in place of what is selected in that field', async () => {
    field.value = 'Board of Monday';
    button.click();
    type('Pens');
    field.setSelectionRange(0, field.value.length);
    field.focus();
    expect(field.value).toBe('Pens');
    await frames();
  });

  it('comes into that field though the focus goes back to a button on the way', async () => {
    button.click();
    type('Pens');
    button.focus();
    field.focus();
    expect(field.value).toBe('Pens');
    await frames();
  });

  it('goes nowhere where another field is pointed at or gone to by Tab', async () => {
    for (const leave of [
      () => field.dispatchEvent(new PointerEvent('pointerdown', { bubbles: true })),
      () => button.dispatchEvent(new KeyboardEvent('keydown', { key: 'Tab', bubbles: true })),
    ]) {
      button.click();
      type('Pens');
      leave();
      field.focus();
      expect(field.value).toBe('');
      field.blur();
      await frames();
    }
  });

  it('waits for a dialog that is there and hasn’t taken the focus', async () => {
    const dialog = document.createElement('div');
    dialog.setAttribute('aria-modal', 'true');
    dialog.append(field);
    document.body.append(dialog);
    button.click();
    await frames();
    expect(ahead.isOpening()).toBeTrue();
    type('ebb');
    field.focus();
    expect(field.value).toBe('ebb');
    expect(ahead.isOpening()).toBeFalse();
    dialog.remove();
  });

  it('doesn’t wait for a sheet at the side, beside which one goes on', async () => {
    const sheet = document.createElement('dialog');
    document.body.append(sheet);
    sheet.show();
    button.focus();
    await frames();
    expect(ahead.isOpening()).toBeFalse();
    sheet.remove();
  });

  it('is the board’s where a button opened nothing, and never comes into a field that is gone to later', async () => {
    button.click();
    await frames();
    type('hp');
    field.focus();
    expect(field.value).toBe('');
    // What is typed in another field is its own.
    button.click();
    type('ab', field);
    field.blur();
    field.focus();
    expect(field.value).toBe('');
  });
});
