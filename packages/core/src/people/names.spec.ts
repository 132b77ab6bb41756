import { initialsOf, nameOf, renamedIn, isNamedIn } from './index.js';

describe('names', () => {
  it('tell two of one name apart, also by their initials', () => {
    expect(nameOf({ name: 'Ida', nameOrdinal: 2 })).toBe('Ida (2)');
    expect(initialsOf({ name: 'Ida Lund', nameOrdinal: 2 })).toBe('IL2');
    expect(initialsOf({ name: '', nameOrdinal: 1 })).toBe('?');
  });

  const said: [text: string, name: string, as: string][] = [
    ['Ida reads. Well done, Ida! (Ida’s page)', 'Ida', '– reads. Well done, –! (–’s page)'],
    ['Idaho, Fridа, ida, IDA', 'Ida', 'Idaho, Fridа, ida, IDA'],
    ['Åse and Åsen', 'Åse', '– and Åsen'],
    ['J. (Jo) and J+', 'J.', '– (Jo) and J+'],
    ['小明写了小明。', '小明', '–写了–。'],
    ['小明，小明。', '小明', '–，–。'],
  ];
  for (const [text, name, as] of said)
    it(`of ${name} are found in “${text}” and replaced where they stand whole`, () => {
      expect(isNamedIn(text, name)).toBe(as !== text);
      expect(renamedIn(text, name, '–')).toBe(as);
      expect(isNamedIn(as, name)).toBeFalse();
    });

  it('are replaced by what is written, whatever that means to a pattern', () => {
    expect(renamedIn('Ask Ida.', 'Ida', '$& $1')).toBe('Ask $& $1.');
  });
});
