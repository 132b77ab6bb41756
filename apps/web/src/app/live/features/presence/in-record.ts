import type { Happening, HappeningSign, InRecord } from '../feature';

const TURN: HappeningSign = { symbol: 'rect', size: 5, legend: '▪ page turned' };

/** Who turned to which page. */
export const presenceInRecord: InRecord<'presence'> = {
  happenings: ({ turns }, { name, pageNumber }) =>
    turns.flatMap(({ by, page, at }): Happening[] => {
      const number = pageNumber(page);
      // A page that was taken out since has no number to be called by.
      return number === null
        ? []
        : [{ at, by, sign: TURN, words: `${name(by)} turned to page ${number}` }];
    }),
  signs: [TURN],
  said: {},
};
