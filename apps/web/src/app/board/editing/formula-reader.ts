/** A formula that is to be put into words; its number tells it from those before it. */
export interface FormulaToRead {
  readonly number: number;
  readonly mathml: string;
}

/** The same, put into words; empty where it couldn't be. */
interface ReadFormula extends FormulaToRead {
  readonly words: string;
}

/** Puts formulas into words, in a thread of its own; to be closed. */
export class FormulaReader {
  private worker: Worker | null = new Worker(new URL('./formula-words.worker', import.meta.url), {
    type: 'module',
  });
  private number = 0;
  private readonly waiting = new Map<number, (words: string) => void>();

  constructor() {
    this.worker!.onmessage = ({ data }: MessageEvent<ReadFormula>) => {
      this.waiting.get(data.number)?.(data.words);
      this.waiting.delete(data.number);
    };
    // Its file can't be fetched, or it is out of memory: formulas do without words.
    this.worker!.onerror = () => this.close();
  }

  /** Empty where it can't be put into words, or the reader is closed before it is. */
  read(mathml: string): Promise<string> {
    if (!this.worker) return Promise.resolve('');
    const task: FormulaToRead = { number: ++this.number, mathml };
    return new Promise((resolve) => {
      this.waiting.set(task.number, resolve);
      this.worker!.postMessage(task);
    });
  }

  close(): void {
    this.worker?.terminate();
    this.worker = null;
    for (const done of this.waiting.values()) done('');
    this.waiting.clear();
  }
}
