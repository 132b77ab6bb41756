import { UploadedAsset } from '@cuaderno/contract/materials';
import type { Remark } from '@cuaderno/contract/materials';
import type { Id } from '@cuaderno/core/id';
import { signal } from '@angular/core';
import { DetailedError, Upload } from 'tus-js-client';
import { NO_LINE, ProblemDetails } from '../../api/problem';
import type { AssetInfo } from './shapes';

const ENDPOINT = '/api/materials/uploads';

/** Files up to this size are sent in one request, in bytes; larger ones can be taken up again. */
const SMALL = 1_000_000;

/** When a part is tried again after the line was away, in ms: for ten minutes, then one is asked. */
const DELAYS = [500, 1000, 2000, 4000, ...Array.from({ length: 80 }, () => 7500)];

/** How a file on its way stands. */
export type UploadState =
  | 'waiting'
  | 'sending'
  /** The line is away; it goes on by itself. */
  | 'away'
  /** All bytes are there; the server looks at them. */
  | 'reading'
  | 'done'
  | 'failed';

/** A file on its way to a folder. Broken off, it goes on where it was, also after a reload. */
export class MaterialUpload {
  readonly state = signal<UploadState>('waiting');
  /** From 0 to 1. */
  readonly part = signal(0);
  readonly problem = signal<ProblemDetails | null>(null);
  /** What the server said of it when it took it. */
  remarks: readonly Remark[] = [];
  private upload: Upload | null = null;
  private given = false;
  /** Ends `run` where it waits: an upload that is stopped says nothing any more. */
  private end: () => void = () => undefined;

  constructor(
    readonly file: File,
    readonly folder: Id | null,
  ) {}

  /** Sends it; `null` where it was given up or can't be taken. */
  async run(): Promise<AssetInfo | null> {
    if (this.given) return null;
    this.state.set('sending');
    this.problem.set(null);
    try {
      const { remarks, ...asset } = await this.send();
      this.remarks = remarks;
      this.state.set('done');
      return asset;
    } catch (error) {
      if (this.given) return null;
      this.problem.set(problemIn(error));
      this.state.set('failed');
      return null;
    }
  }

  /** Gives it up, here and on the server. */
  async stop(): Promise<void> {
    this.given = true;
    this.end();
    const { upload } = this;
    if (!upload) return;
    await upload.abort();
    // Nobody is asked to take it up again, whenever the server hears of it.
    const { urlStorage } = upload.options;
    for (const { urlStorageKey } of await upload.findPreviousUploads())
      await urlStorage?.removeUpload(urlStorageKey);
    // What can't be told now clears itself away after a week.
    if (upload.url)
      await Upload.terminate(upload.url, { retryDelays: null }).catch(() => undefined);
  }

  private async send(): Promise<UploadedAsset> {
    const { file, folder } = this;
    const sent = new Promise<UploadedAsset>((resolve, reject) => {
      this.end = () => reject(new Error('given up'));
      this.upload = new Upload(file, {
        endpoint: ENDPOINT,
        metadata: { name: file.name, folder: folder ?? '' },
        // The same file for another folder is another upload.
        fingerprint: ({ name, size, lastModified }) =>
          Promise.resolve([ENDPOINT, name, size, lastModified, folder].join(' ')),
        retryDelays: DELAYS,
        uploadDataDuringCreation: file.size <= SMALL,
        removeFingerprintOnSuccess: true,
        onProgress: (bytes, of) => {
          this.part.set(of > 0 ? bytes / of : 1);
          this.state.set(bytes >= of ? 'reading' : 'sending');
        },
        onShouldRetry: (error) => {
          const status = error.originalResponse?.getStatus() ?? 0;
          const again = status === 0 || status >= 500 || status === 409 || status === 423;
          if (again && status !== 507) this.state.set('away');
          return again && status !== 507;
        },
        onSuccess: ({ lastResponse }) => {
          try {
            resolve(UploadedAsset.parse(JSON.parse(lastResponse.getBody())));
          } catch (error) {
            reject(error as Error);
          }
        },
        onError: reject,
      });
    });
    const [before] = await this.upload!.findPreviousUploads();
    if (before) this.upload!.resumeFromPreviousUpload(before);
    if (!this.given) this.upload!.start();
    return sent;
  }
}

/** Names of files that broke off in an earlier visit, and wait to be chosen again. */
export async function brokenOff(): Promise<{ name: string; forget: () => Promise<void> }[]> {
  const { urlStorage } = new Upload(new Blob(), { endpoint: ENDPOINT }).options;
  const all = (await urlStorage?.findAllUploads()) ?? [];
  return all.map((upload) => ({
    name: upload.metadata['name'] ?? '',
    forget: async () => {
      await urlStorage?.removeUpload(upload.urlStorageKey);
    },
  }));
}

function problemIn(error: unknown): ProblemDetails {
  if (error instanceof DetailedError && error.originalResponse) {
    try {
      return ProblemDetails.parse(JSON.parse(error.originalResponse.getBody()));
    } catch {
      // Some proxy answered; the words for a broken line fit.
    }
  }
  return NO_LINE;
}
