import { openStorage } from './storage';

describe('what a browser keeps', () => {
  it('is the browser’s own', () => {
    expect(openStorage(() => localStorage)).toBe(localStorage);
  });

  for (const [how, open] of [
    [
      'is denied',
      () => {
        throw new DOMException('denied', 'SecurityError');
      },
    ],
    [
      'can’t be used',
      () =>
        ({
          getItem: () => {
            throw new DOMException('denied', 'SecurityError');
          },
        }) as unknown as Storage,
    ],
    ['isn’t there', () => undefined as unknown as Storage],
  ] as const)
    it(`is remembered by the window where it ${how}`, () => {
      const storage = openStorage(open);
      storage.setItem('a', '1');
      storage.setItem('b', '2');
      storage.removeItem('a');
      expect(storage.getItem('a')).toBeNull();
      expect(storage.getItem('b')).toBe('2');
      expect(storage.length).toBe(1);
      expect(storage.key(0)).toBe('b');
      expect(storage.key(1)).toBeNull();
    });
});
