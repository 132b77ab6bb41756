/// <reference lib="webworker" />
import { formulaWords } from '@cuaderno/formats/formula-words';
import type { FormulaToRead } from './formula-reader';

/* Puts formulas into words away from the thread that draws: its rules take a while to be read. */
addEventListener('message', async ({ data }: MessageEvent<FormulaToRead>) => {
  const words = await formulaWords(data.mathml).catch(() => '');
  postMessage({ ...data, words });
});
