import type { ImportReport, SlideReport } from '@cuaderno/formats/slides-in/report';
import { inShort, onSlides, sentences, whatPagesHave } from './report-dialog';

const slide: SlideReport = {
  number: 2,
  title: 'Springs',
  letters: [],
  flattened: false,
  hidden: false,
  notes: false,
  media: [],
};
const report: ImportReport = { slides: 60, named: 0, noted: 0, fonts: [], changed: [] };
const calibri = { asked: 'Calibri', used: 'Carlito', slides: [2, 3, 4, 9] };

describe('what is said of slides', () => {
  it('names everything that changed, and what to do where something is missing', () => {
    const said = sentences({
      ...slide,
      letters: ['ᚠ', 'ᚢ'],
      flattened: true,
      hidden: true,
      media: [
        { name: 'horn.wav', problem: null },
        { name: 'old.avi', problem: 'It is coded oddly. Save it as MP4.' },
      ],
    });
    expect(said.length).toBe(5);
    expect(said[0]).toBe('No font here has ᚠ ᚢ: boxes stand there.');
    expect(said[3]).toBe('horn.wav plays where it lay.');
    expect(said[4]).toContain('Save it as MP4.');
  });

  it('says on which slides a font was replaced', () => {
    expect(onSlides([7])).toBe('slide 7');
    expect(onSlides([1, 2])).toBe('slides 1, 2');
    expect(onSlides([2, 3, 4, 9])).toBe('slides 2 to 4 and 9');
    expect(onSlides([1, 3, 5])).toBe('slides 1, 3 and 5');
  });

  it('counts in words, and says so where nothing changed', () => {
    expect(inShort({ ...report, slides: 1 })).toBe('One slide came in as it was.');
    expect(inShort(report)).toBe('60 slides came in as they were.');
    const changed = [
      { ...slide, flattened: true },
      { ...slide, number: 3, flattened: true, letters: ['ᚠ'] },
    ];
    expect(inShort({ ...report, fonts: [calibri], changed })).toBe(
      '60 slides came in: one font was replaced, one slide has letters that no font here has, 2 slides no longer move.',
    );
  });

  it('claims names and notes only where there are some', () => {
    expect(whatPagesHave(report)).toBe('');
    expect(whatPagesHave({ ...report, named: null, noted: null })).toBe('');
    expect(whatPagesHave({ ...report, named: 1, noted: 12 })).toBe(
      'One page is named after its slide’s title. 12 pages have their slides’ notes in the margin.',
    );
  });
});
