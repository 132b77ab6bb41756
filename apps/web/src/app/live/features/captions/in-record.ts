import type { HappeningSign, InRecord } from '../feature';

const LINE: HappeningSign = { symbol: 'emptyCircle', size: 7, legend: '○ caption' };

/** What was said, as somebody typed it. */
export const captionsInRecord: InRecord<'captions'> = {
  happenings: ({ captions }, { name }) =>
    captions.map(({ by, text, from }) => ({
      ...{ at: from, by, sign: LINE },
      words: `Said, as ${name(by)} typed it: “${text}”`,
    })),
  signs: [LINE],
  said: {
    captions: {
      label: 'Captions',
      one: 'line of captions',
      many: 'lines of captions',
      file: {
        name: 'captions.vtt',
        label: 'Captions as WebVTT',
        words: 'What was said, line by line, for the film or any player.',
      },
    },
  },
};
