import fp from 'fastify-plugin';
import { setTimeout } from 'node:timers/promises';
import { MessageChannel } from 'node:worker_threads';
import type { ResourceLimits } from 'node:worker_threads';
import { Piscina } from 'piscina';
import type { Taken } from '@cuaderno/formats/pdf-annotations';
import type {
  BoardFileNews,
  BoardFileTask,
  BoardLogNews,
  BoardLogTask,
} from './board-file-worker.js';
import type { CalendarNews, CalendarTask } from './calendar-worker.js';
import type { CloseDeckTask, DeckNews, DeckTask } from './deck-worker.js';
import type { MediaNews } from './media-worker.js';
import type { InspectNews, InspectTask } from './pdf-worker.js';
import type { Separated } from '@cuaderno/formats/pdf-out';
import type { BoardPdfTask } from './board-pdf-worker.js';
import type { SealTask } from './seal-worker.js';
import type { TakenFromBoard, TakeOutTask } from './take-out-worker.js';
import type { SeparateTask } from './separate-worker.js';

declare module 'fastify' {
  interface FastifyInstance {
    workers: Workers;
  }
}

/** Longest a job may take, in ms. */
const INSPECT_LIMIT = 60_000;
const RECORD_LIMIT = 300_000;
const MEDIA_LIMIT = 60_000;
/** What a sound or a film is can be told from its beginning and its end: an honest one takes some ms. */
const LISTEN_LIMIT = 8_000;
const CALENDAR_LIMIT = 15_000;
/** How long a server that ends waits for what was begun. */
const CLOSE_LIMIT = 30_000;
/** Longer than this nobody waits for annotations to become ink. */
const LIFT_LIMIT = 30_000;

/**
 * Memory of the thread that makes records, in MB. It makes much that lives for a moment: with room
 * for that, it isn't stopped again and again to clear it away.
 */
export const RECORD_MEMORY = {
  maxOldGenerationSizeMb: 1024,
  maxYoungGenerationSizeMb: 96,
} as const;

/** How long the thread that reads PDFs waits for one, in ms. */
const WARM = 10 * 60_000;

/** Memory of a thread that reads what is sent, in MB. */
const ROOMY = { maxOldGenerationSizeMb: 1024 } as const;

/** A thread for one kind of work, there while it is needed. */
function pool(
  worker: string,
  name: string,
  resourceLimits: ResourceLimits,
  maxThreads = 1,
): Piscina {
  return new Piscina({
    filename: new URL(`./${worker}-worker.js`, import.meta.url).href,
    name,
    minThreads: 0,
    maxThreads,
    idleTimeout: 30_000,
    resourceLimits,
  });
}

/** Heavy work, on threads of its own with limits of time and memory. */
export class Workers {
  private readonly inspecting = new Piscina({
    filename: new URL('./pdf-worker.js', import.meta.url).href,
    name: 'inspect',
    minThreads: 0,
    maxThreads: 1,
    idleTimeout: WARM,
    // It is there for long, and mostly idle: it needn't keep room for what lives a moment.
    resourceLimits: { ...ROOMY, maxYoungGenerationSizeMb: 24 },
  });
  private readonly recording = pool('board-pdf', 'makeBoardPdf', RECORD_MEMORY);
  private readonly sealing = pool('seal', 'sealRecord', RECORD_MEMORY);
  private readonly takingOut = pool('take-out', 'takeOutOf', RECORD_MEMORY);
  private readonly separating = pool('separate', 'separate', RECORD_MEMORY);
  private readonly listening = pool('media', 'inspectMedia', { maxOldGenerationSizeMb: 256 }, 2);
  private readonly calendars = pool('calendar', 'readCalendar', { maxOldGenerationSizeMb: 256 });
  private readonly unpacking = pool('board-file', 'openBoardFile', ROOMY);
  private readonly slides = pool('deck', 'openDeck', ROOMY);
  private readonly lifting = pool('annotations', 'annotationsOf', RECORD_MEMORY);

  /** What was begun, whether its thread is there or still loads. */
  private readonly underWay = new Set<Promise<unknown>>();

  /**
   * A tutor is where a PDF may be brought next, and will wait for it: the thread that reads them is loaded, and stays so
   * for some minutes. It takes 70 MB, which a server where nobody is needn't hold.
   */
  expectPdf(): void {
    if (this.inspecting.queueSize > 0) return;
    // What is wrong will be told with the file itself.
    this.run(this.inspecting, null, { name: 'ready' }).catch(() => undefined);
  }

  /**
   * Tells `onNews` of a PDF's pages as they are read, the last word being `done` or `fault`.
   * @param most pages that it may have: of one that has more, only their number is told
   */
  async inspectPdf(
    path: string,
    from: number,
    most: number,
    onNews: (news: InspectNews) => void,
  ): Promise<void> {
    const { port1, port2 } = new MessageChannel();
    const lastWord = new Promise<void>((resolve) => {
      port1.on('message', (news: InspectNews) => {
        onNews(news);
        if (news.kind === 'done' || news.kind === 'fault') resolve();
      });
    });
    const task: InspectTask = { path, from, most, port: port2 };
    try {
      await this.run(this.inspecting, task, {
        transferList: [port2],
        signal: AbortSignal.timeout(INSPECT_LIMIT),
      });
      await lastWord;
    } catch (error) {
      const { name } = error as Error;
      // Its time was up, or it took more memory than it may.
      if (name !== 'AbortError' && name !== 'TimeoutError' && !isOutOfMemory(error)) throw error;
      onNews({ kind: 'fault', fault: 'too-slow' });
    } finally {
      port1.close();
    }
  }

  /** Takes pages out of a PDF, for those who may not have them. */
  separate(path: string, numbers: readonly number[]): Promise<Separated> {
    const task: SeparateTask = { path, numbers };
    const signal = AbortSignal.timeout(RECORD_LIMIT);
    return this.run(this.separating, task, { signal }) as Promise<Separated>;
  }

  /**
   * Takes what was written on a stored PDF out of it; `null` where nothing was, or it can't be done within the limits:
   * then the file is shown as it is.
   */
  async annotationsOf(path: string): Promise<Taken | null> {
    const signal = AbortSignal.timeout(LIFT_LIMIT);
    const may = this.run(this.inspecting, { path }, { signal, name: 'mayBeWrittenOn' });
    if (!((await may.catch(() => false)) as boolean)) return null;
    return (await this.run(this.lifting, { path }, { signal }).catch(() => null)) as Taken | null;
  }

  /** Unpacks a board file; one that can't be unpacked within the limits is too large. */
  async openBoardFile(task: BoardFileTask): Promise<BoardFileNews> {
    const signal = AbortSignal.timeout(INSPECT_LIMIT);
    try {
      return (await this.run(this.unpacking, task, { signal })) as BoardFileNews;
    } catch (error) {
      return { kind: 'fault', fault: 'too-large', message: String(error) };
    }
  }

  /** Makes the log of a board that was unpacked, and writes it down. */
  async layBoardFile(task: BoardLogTask): Promise<BoardLogNews> {
    try {
      return (await this.run(this.unpacking, task, {
        ...{ name: 'layBoardFile', transferList: [task.port] },
        signal: AbortSignal.timeout(INSPECT_LIMIT),
      })) as BoardLogNews;
    } catch (error) {
      return { kind: 'fault', fault: 'too-large', message: String(error) };
    }
  }

  /** What kind of deck a stored file is. */
  sniffDeck(task: Omit<DeckTask, 'folder'>): Promise<DeckNews> {
    return this.deck('sniffDeck', task);
  }

  /** Lays down a deck without what lies outside of it, for the program that converts it. */
  closeDeck(task: CloseDeckTask): Promise<DeckNews> {
    return this.deck('closeDeck', task);
  }

  /** Reads what converting a deck loses; one that can't be read within the limits is broken. */
  openDeck(task: DeckTask): Promise<DeckNews> {
    return this.deck('openDeck', task);
  }

  /** Takes sounds and films out of a PDF, where it lies. Throws where that can't be done. */
  async stripPdf(path: string): Promise<void> {
    const signal = AbortSignal.timeout(MEDIA_LIMIT);
    await this.run(this.slides, { path }, { signal, name: 'stripPdf' });
  }

  /** Fonts that each page of a stored PDF is drawn with; none where that can't be told. */
  async fontsOfPdf(path: string): Promise<string[][]> {
    const signal = AbortSignal.timeout(MEDIA_LIMIT);
    return (await this.slides
      .run({ path }, { signal, name: 'fontsOfPdf' })
      .catch(() => [])) as string[][];
  }

  /** What a stored sound or film holds; one that can't be read within the limits is broken. */
  async inspectMedia(path: string): Promise<MediaNews> {
    const signal = AbortSignal.timeout(LISTEN_LIMIT);
    try {
      return (await this.run(this.listening, { path }, { signal })) as MediaNews;
    } catch {
      return { kind: 'fault', fault: 'broken' };
    }
  }

  /** What can be planned of a calendar; one that can't be read within the limits is too large. */
  async readCalendar(task: CalendarTask): Promise<CalendarNews> {
    const signal = AbortSignal.timeout(CALENDAR_LIMIT);
    try {
      return (await this.run(this.calendars, task, { signal })) as CalendarNews;
    } catch {
      return { kind: 'fault', fault: 'too-large' };
    }
  }

  /** The PDF of a record or a board. */
  boardPdf(task: BoardPdfTask, signal: AbortSignal): Promise<Uint8Array> {
    return this.run(this.recording, task, {
      transferList: [task.port],
      signal: AbortSignal.any([signal, AbortSignal.timeout(RECORD_LIMIT)]),
    }) as Promise<Uint8Array>;
  }

  /** Writes down what is in a record. @param told how many pages are done, and of how many */
  async sealRecord(
    task: Omit<SealTask, 'news'>,
    told: (done: number, of: number) => void,
  ): Promise<void> {
    const { port1, port2 } = new MessageChannel();
    port1.on('message', ([done, of]: [number, number]) => told(done, of));
    try {
      await this.run(
        this.sealing,
        { ...task, news: port2 },
        { transferList: [task.port, port2], signal: AbortSignal.timeout(RECORD_LIMIT) },
      );
    } finally {
      port1.close();
    }
  }

  /** What people drew on boards, to be taken out of their logs. */
  takeOutOf(task: TakeOutTask): Promise<TakenFromBoard[]> {
    return this.run(this.takingOut, task, {
      transferList: [task.port],
      signal: AbortSignal.timeout(RECORD_LIMIT),
    }) as Promise<TakenFromBoard[]>;
  }

  private run(
    pool: Piscina,
    task: unknown,
    options: Parameters<Piscina['run']>[1] = {},
  ): Promise<unknown> {
    const running = pool.run(task, options) as Promise<unknown>;
    const over: Promise<unknown> = running.then(
      () => this.underWay.delete(over),
      () => this.underWay.delete(over),
    );
    this.underWay.add(over);
    return running;
  }

  private async deck(name: string, task: object): Promise<DeckNews> {
    const signal = AbortSignal.timeout(MEDIA_LIMIT);
    try {
      return (await this.run(this.slides, task, { signal, name })) as DeckNews;
    } catch {
      return { kind: 'fault', fault: 'broken' };
    }
  }

  /**
   * Lets what is under way finish: a thread that is cut off while it loads brings the process down, and a pool forgets
   * what waits for a thread that loads.
   */
  async close(): Promise<void> {
    await Promise.race([
      Promise.allSettled(this.underWay),
      setTimeout(CLOSE_LIMIT, null, { ref: false }),
    ]);
    const pools = [
      this.inspecting,
      this.recording,
      this.sealing,
      this.separating,
      this.takingOut,
      this.listening,
      this.calendars,
      this.unpacking,
      this.slides,
      this.lifting,
    ];
    await Promise.all(pools.map((pool) => pool.close()));
  }
}

function isOutOfMemory(error: unknown): boolean {
  return (error as { code?: unknown }).code === 'ERR_WORKER_OUT_OF_MEMORY';
}

export const workers = fp(
  (app, _options, done) => {
    const pool = new Workers();
    app.decorate('workers', pool);
    app.addHook('onClose', () => pool.close());
    done();
  },
  { name: 'workers' },
);
