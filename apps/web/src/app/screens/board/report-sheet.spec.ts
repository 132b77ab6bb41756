import { inShort, sentences } from './report-sheet';

const slide = {
  number: 2,
  title: 'Springs',
  fonts: [],
  flattened: false,
  hidden: false,
  notes: false,
  media: [],
};

describe('what is said of slides', () => {
  it('names everything that changed, and what to do where something is missing', () => {
    const said = sentences({
      ...slide,
      fonts: [{ asked: 'Calibri', used: 'Carlito' }],
      flattened: true,
      hidden: true,
      media: [
        { name: 'horn.wav', problem: null },
        { name: 'old.avi', problem: 'It is coded oddly. Save it as MP4.' },
      ],
    });
    expect(said.length).toBe(5);
    expect(said[0]).toContain('Carlito stands in');
    expect(said[3]).toBe('horn.wav plays where it lay.');
    expect(said[4]).toContain('Save it as MP4.');
  });

  it('counts in words, and says so where nothing changed', () => {
    expect(inShort({ slides: 1, changed: [] })).toBe('One slide came in as it was.');
    expect(inShort({ slides: 60, changed: [] })).toBe('60 slides came in as they were.');
    const changed = [
      { ...slide, flattened: true },
      { ...slide, number: 3, flattened: true, fonts: [{ asked: 'Calibri', used: 'Carlito' }] },
    ];
    expect(inShort({ slides: 60, changed })).toBe(
      '60 slides came in: one font was replaced, 2 slides no longer move.',
    );
  });
});
