import { initialsOf, nameOf, renamedIn, timesNamed } from './index.js';

describe('names', () => {
  it('tell two of one name apart, also by their initials', () => {
    expect(nameOf({ name: 'Ida', nth: 2 })).toBe('Ida (2)');
    expect(initialsOf({ name: 'Ida Lund', nth: 2 })).toBe('IL2');
    expect(initialsOf({ name: '', nth: 1 })).toBe('?');
  });

  const said: [text: string, name: string, times: number][] = [
    ['Ida reads. Well done, Ida! (Ida’s page)', 'Ida', 3],
    ['Idaho, Fridа, ida, IDA', 'Ida', 0],
    ['Åse and Åsen', 'Åse', 1],
    ['J. (Jo) and J+', 'J.', 1],
    ['小明写了小明。', '小明', 2],
    ['小明，小明。', '小明', 2],
  ];
  for (const [text, name, times] of said)
    it(`count ${name} in “${text}” ${times} times`, () => {
      expect(timesNamed(text, name)).toBe(times);
      expect(timesNamed(renamedIn(text, name, 'Former student 1 $&'), name)).toBe(0);
    });

  it('are replaced by what is written, whatever that means to a pattern', () => {
    expect(renamedIn('Ask Ida.', 'Ida', '$& $1')).toBe('Ask $& $1.');
  });
});
