import { inject, Injectable } from '@angular/core';
import type { Problem as Answer } from '@cuaderno/core';
import { SignedOut } from './signed-out';

/** What the server says when something can't be done (RFC 9457), or this window where nothing answers. */
export type Problem = Omit<Answer, 'status'>;

/** Thrown where something can't be done; its words are for the person. */
export class ProblemError extends Error {
  override readonly name: string = 'TroubleError';
  constructor(readonly problem: Problem) {
    super(problem.title);
  }
}

/** Thrown by every call that fails. */
export class ApiError extends ProblemError {
  override readonly name = 'ApiError';
  constructor(
    problem: Problem,
    readonly status: number,
  ) {
    super(problem);
  }

  /** The code behind `urn:cuaderno:`. */
  get code(): string {
    return this.problem.type.replace('urn:cuaderno:', '');
  }
}

export const NO_LINE: Problem = {
  type: 'urn:cuaderno:no-line',
  title: 'Cuaderno can’t be reached.',
  detail: 'Check the connection, then try again. Nothing is lost.',
};

/** Words for anything that was thrown. */
export function problemOf(error: unknown): Problem {
  return error instanceof ProblemError ? error.problem : NO_LINE;
}

async function failure(response: Response): Promise<ApiError> {
  const body = (await response.json().catch(() => NO_LINE)) as Problem;
  return new ApiError(body.title ? body : NO_LINE, response.status);
}

/** Speaks HTTP with the server. Every method throws `ApiError`. */
@Injectable({ providedIn: 'root' })
export class Api {
  private readonly signedOut = inject(SignedOut);

  async get<T>(path: string): Promise<T> {
    const response = await this.fetch('GET', path);
    return (response.status === 204 ? undefined : await response.json()) as T;
  }

  async post<T = void>(path: string, body: unknown = {}): Promise<T> {
    const response = await this.fetch('POST', path, body);
    return (response.status === 204 ? undefined : await response.json()) as T;
  }

  /** Sends a text of another kind than JSON. */
  async sendText<T>(path: string, text: string, type: string): Promise<T> {
    const body = new Blob([text], { type });
    return (await (await this.fetch('POST', path, body)).json()) as T;
  }

  /** Sends bytes that are no file. */
  async sendBytes<T>(path: string, bytes: Uint8Array<ArrayBuffer>): Promise<T> {
    const body = new Blob([bytes], { type: 'application/octet-stream' });
    return (await (await this.fetch('POST', path, body)).json()) as T;
  }

  async bytes(path: string): Promise<Uint8Array> {
    return new Uint8Array(await (await this.fetch('GET', path)).arrayBuffer());
  }

  async download(path: string, signal: AbortSignal): Promise<{ blob: Blob; name: string }> {
    const response = await this.fetch('GET', path, undefined, signal);
    const header = response.headers.get('content-disposition') ?? '';
    const coded = /filename\*=UTF-8''([^;]+)/.exec(header)?.[1];
    return { blob: await response.blob(), name: coded ? decodeURIComponent(coded) : 'record.pdf' };
  }

  /** Sends a file, telling of its way from 0 to 1. */
  async upload<T>(
    path: string,
    file: Blob,
    onProgress: (part: number) => void,
    signal: AbortSignal,
  ): Promise<T> {
    const since = this.signedOut.times;
    try {
      return await this.send<T>(path, file, onProgress, signal);
    } catch (error) {
      if (await this.isOver(error, since)) return this.send<T>(path, file, onProgress, signal);
      throw error;
    }
  }

  private send<T>(
    path: string,
    file: Blob,
    onProgress: (part: number) => void,
    signal: AbortSignal,
  ): Promise<T> {
    return new Promise((resolve, reject) => {
      const request = new XMLHttpRequest();
      request.open('POST', `/api${path}`);
      request.setRequestHeader('content-type', 'application/octet-stream');
      request.upload.onprogress = (event) => {
        if (event.lengthComputable) onProgress(event.loaded / event.total);
      };
      request.onload = () => {
        let body: unknown = request.status === 204 ? undefined : NO_LINE;
        try {
          body = JSON.parse(request.responseText);
        } catch {
          // Some proxy answered; the words for a broken line fit.
        }
        if (request.status < 300) resolve(body as T);
        else reject(new ApiError(body as Problem, request.status));
      };
      request.onerror = () => reject(new ApiError(NO_LINE, 0));
      request.onabort = () => reject(new DOMException('given up', 'AbortError'));
      signal.addEventListener('abort', () => request.abort());
      request.send(file);
    });
  }

  private async fetch(
    method: string,
    path: string,
    body?: unknown,
    signal?: AbortSignal,
  ): Promise<Response> {
    const init: RequestInit = { method, signal: signal ?? null };
    if (body instanceof Blob) {
      init.headers = { 'content-type': body.type };
      init.body = body;
    } else if (body !== undefined) {
      init.headers = { 'content-type': 'application/json' };
      init.body = JSON.stringify(body);
    }
    const since = this.signedOut.times;
    let response: Response;
    try {
      response = await fetch(`/api${path}`, init);
    } catch (error) {
      if (signal?.aborted) throw error;
      throw new ApiError(NO_LINE, 0);
    }
    if (response.ok) return response;
    const error = await failure(response);
    // What was to be done waits until they are signed in again, and is done then.
    if (await this.isOver(error, since)) return this.fetch(method, path, body, signal);
    throw error;
  }

  /** Whether that went wrong for want of a session, and there is one by now. */
  private isOver(error: unknown, since: number): Promise<boolean> {
    return error instanceof ApiError && error.code === 'not-signed-in'
      ? this.signedOut.signedInAgain(since)
      : Promise.resolve(false);
  }
}
