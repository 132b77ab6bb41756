/** What is written of every annotation unless it is said otherwise. */
export const PLAIN = {
  contents: '',
  colour: null,
  interior: null,
  width: 0,
  dashed: false,
  inset: 0,
  runs: [],
  endings: null,
  words: null,
} as const;
