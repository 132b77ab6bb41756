import { ROOMY } from '../workers/worker-pool.js';
import type { Workers } from '../workers/workers.js';
import type { CloseDeckTask, DeckNews, DeckTask } from './deck-worker.js';

/** Longest that one step with a deck may take, in ms. */
const LIMIT = 60_000;

/** Reads decks of slides, and the PDFs that are made of them, on a thread of their own. */
export class DeckReader {
  private readonly pool;

  constructor(workers: Workers) {
    this.pool = workers.pool(new URL('./deck-worker.js', import.meta.url), {
      ...{ name: 'openDeck', memory: ROOMY },
    });
  }

  /** What kind of deck a stored file is. */
  sniff(task: Omit<DeckTask, 'folder'>): Promise<DeckNews> {
    return this.news('sniffDeck', task);
  }

  /** Lays down a deck without what lies outside of it, for the program that converts it. */
  close(task: CloseDeckTask): Promise<DeckNews> {
    return this.news('closeDeck', task);
  }

  /** Reads what converting a deck loses; one that can't be read within the limits is broken. */
  open(task: DeckTask): Promise<DeckNews> {
    return this.news('openDeck', task);
  }

  /** Takes sounds and films out of a PDF, where it lies. Throws where that can't be done. */
  async stripPdf(path: string): Promise<void> {
    await this.pool.run({ path }, { signal: AbortSignal.timeout(LIMIT), name: 'stripPdf' });
  }

  /** Fonts that each page of a stored PDF is drawn with; none where that can't be told. */
  fontsOfPdf(path: string): Promise<string[][]> {
    return this.pool
      .run<string[][]>({ path }, { signal: AbortSignal.timeout(LIMIT), name: 'fontsOfPdf' })
      .catch(() => []);
  }

  private news(name: string, task: object): Promise<DeckNews> {
    return this.pool
      .run<DeckNews>(task, { signal: AbortSignal.timeout(LIMIT), name })
      .catch(() => ({ kind: 'fault', fault: 'broken' }));
  }
}
