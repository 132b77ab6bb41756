import { hasAnnotations, whatCame } from './format-annotations';

describe('what became of annotations of a PDF', () => {
  it('is told of each kind that there was, in whole sentences', () => {
    expect(whatCame({ count: 1, comments: 0, stayed: 0, attached: 0 })).toEqual([
      'One annotation of this PDF can be changed like your own ink; the colours are the nearest here.',
    ]);
    const all = whatCame({ count: 3, comments: 2, stayed: 1, attached: 1 });
    expect(all.length).toBe(4);
    expect(all[1]).toBe(
      '2 comments lie on slips with the writer’s name. Students don’t see them until you show them.',
    );
    expect(all[2]).toBe('One stays part of the pages.');
  });

  it('is nothing where the pages are as they came, and nothing is attached', () => {
    expect(hasAnnotations({ count: 0, comments: 0, stayed: 4, attached: 0 })).toBeFalse();
    expect(hasAnnotations({ count: 0, comments: 0, stayed: 0, attached: 1 })).toBeTrue();
    expect(hasAnnotations({ count: 0, comments: 1, stayed: 0, attached: 0 })).toBeTrue();
    expect(hasAnnotations(undefined)).toBeFalse();
  });
});
