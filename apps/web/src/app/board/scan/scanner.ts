import type { Quad } from '@cuaderno/core/scan';
import type { ScanNews, ScanTask } from './messages';

/** Thrown where a picture can't be straightened. */
export class ScanError extends Error {
  override readonly name = 'ScanError';
}

/** Finds the paper on one picture and makes it flat, in a thread of its own; to be closed. */
export class Scanner {
  private readonly worker = new Worker(new URL('./scan.worker', import.meta.url), {
    type: 'module',
  });

  /** Throws `ScanError`. */
  async find(picture: Blob): Promise<Extract<ScanNews, { kind: 'found' }>> {
    const news = await this.ask({ kind: 'find', picture });
    if (news.kind !== 'found') throw new ScanError();
    return news;
  }

  /** The picture between four corners of the one in which paper was looked for. Throws `ScanError`. */
  async flatten(corners: Quad): Promise<Blob> {
    const news = await this.ask({ kind: 'flatten', corners });
    if (news.kind !== 'flat') throw new ScanError();
    return news.picture;
  }

  close(): void {
    this.worker.terminate();
  }

  private ask(task: ScanTask): Promise<ScanNews> {
    return new Promise((resolve, reject) => {
      this.worker.onmessage = ({ data }: MessageEvent<ScanNews>) => resolve(data);
      this.worker.onerror = () => reject(new ScanError());
      this.worker.postMessage(task);
    });
  }
}
