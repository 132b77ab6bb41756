import { EditorAhead } from './editor-ahead';

describe('what is typed before the editor of texts is there', () => {
  it('is kept for it, letter by letter, and means no tool', () => {
    const ahead = new EditorAhead();
    for (const key of ['H', 'i', ' ', 'p'])
      expect(ahead.takes(new KeyboardEvent('keydown', { key }))).toBeTrue();
    expect(ahead.typed()).toBe('Hi p');
  });

  it('leaves commands alone', () => {
    const ahead = new EditorAhead();
    expect(ahead.takes(new KeyboardEvent('keydown', { key: 'z', ctrlKey: true }))).toBeFalse();
    expect(ahead.takes(new KeyboardEvent('keydown', { key: 'Enter' }))).toBeFalse();
    expect(ahead.typed()).toBe('');
  });
});
