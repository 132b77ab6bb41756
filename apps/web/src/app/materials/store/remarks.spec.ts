import { formatRemarks } from './remarks';

describe('what is said of files that were taken', () => {
  it('names each, and is nothing where there is nothing to be said', () => {
    expect(formatRemarks([{ name: 'Moon.gif', remarks: [] }])).toBeNull();
    const words = formatRemarks([
      { name: 'Moon.gif', remarks: ['frames'] },
      { name: 'Tide.mkv', remarks: ['some-browsers'] },
    ]);
    expect(words).toContain('“Moon.gif” moves');
    expect(words).toContain('“Tide.mkv” is of a kind that some browsers don’t play');
  });
});
