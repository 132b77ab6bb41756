import { ariaChord, formatChord, isPressed, isSingle, singlePressed } from './chord';

function pressed(key: string, more: KeyboardEventInit & { code?: string } = {}): KeyboardEvent {
  return new KeyboardEvent('keydown', { key, ...more });
}

describe('keys that are pressed together', () => {
  it('are known by all that is held, and by nothing more', () => {
    expect(isPressed(pressed('z', { ctrlKey: true }), 'Ctrl+Z')).toBeTrue();
    expect(isPressed(pressed('z', { metaKey: true }), 'Ctrl+Z')).toBeTrue();
    expect(isPressed(pressed('Z', { ctrlKey: true, shiftKey: true }), 'Ctrl+Z')).toBeFalse();
    expect(isPressed(pressed('Z', { ctrlKey: true, shiftKey: true }), 'Ctrl+Shift+Z')).toBeTrue();
    expect(isPressed(pressed('p', { altKey: true }), 'p')).toBeFalse();
    expect(isPressed(pressed('P', { shiftKey: true }), 'p')).toBeFalse();
    expect(isPressed(pressed('P', { shiftKey: true }), 'Shift+P')).toBeTrue();
    expect(isPressed(pressed('ArrowUp'), 'ArrowUp')).toBeTrue();
  });

  it('are signs however a keyboard writes them', () => {
    expect(isPressed(pressed('?', { shiftKey: true }), '?')).toBeTrue();
    expect(isPressed(pressed('+'), '+')).toBeTrue();
    // A German keyboard has brackets on AltGr, which Windows tells as Ctrl and Alt.
    const bracket = { ctrlKey: true, altKey: true, modifierAltGraph: true };
    expect(isPressed(pressed('[', bracket), '[')).toBeTrue();
    expect(isPressed(pressed('[', { ctrlKey: true, altKey: true }), '[')).toBeFalse();
  });

  it('are those at the same place where other letters are written', () => {
    expect(isPressed(pressed('я', { code: 'KeyZ', ctrlKey: true }), 'Ctrl+Z')).toBeTrue();
    expect(isPressed(pressed('π', { code: 'KeyP' }), 'p')).toBeTrue();
    // A French keyboard writes Latin letters, at other places.
    expect(isPressed(pressed('a', { code: 'KeyQ' }), 'q')).toBeFalse();
  });

  it('are single where speech could say them: with Shift, too, and not with Ctrl', () => {
    expect(['p', 'Shift+P', '?', '+', '1'].every(isSingle)).toBeTrue();
    expect(['Ctrl+Z', 'Alt+ArrowUp', 'PageUp', 'Delete', 'Shift+Tab'].some(isSingle)).toBeFalse();
  });

  it('can be chosen where they are a letter, digit or sign', () => {
    expect(singlePressed(pressed('Q'))).toBe('q');
    expect(singlePressed(pressed('Q', { shiftKey: true }))).toBe('Shift+Q');
    expect(singlePressed(pressed('!', { shiftKey: true }))).toBe('!');
    for (const event of [pressed('F2'), pressed(' '), pressed('q', { ctrlKey: true })])
      expect(singlePressed(event)).toBeNull();
  });

  it('are written as they stand on the keys', () => {
    expect(formatChord('Ctrl+Shift+Z', false)).toBe('Ctrl+Shift+Z');
    expect(formatChord('Ctrl+Shift+Z', true)).toBe('Cmd+Shift+Z');
    expect(['p', 'PageUp', '+', 'Alt+ArrowUp'].map((one) => formatChord(one, false))).toEqual([
      ...['P', 'Page Up', '+', 'Alt+↑'],
    ]);
    expect(['Ctrl+Z', '+', 'Shift+P'].map((one) => ariaChord(one, false))).toEqual([
      ...['Control+Z', 'Plus', 'Shift+P'],
    ]);
  });
});
