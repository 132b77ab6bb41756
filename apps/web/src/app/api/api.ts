import { addressOf } from '@cuaderno/contract/route';
import type { Answer, Asked, Route } from '@cuaderno/contract/route';
import { HttpClient, HttpEventType, HttpHeaders } from '@angular/common/http';
import type { HttpEvent, HttpResponse } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import { filter, lastValueFrom, map, mergeMap, Observable, switchMap, tap } from 'rxjs';
import type { MonoTypeOperatorFunction } from 'rxjs';
import { ApiError, OTHER_ANSWER } from './problem';

/** What has to be said to ask for it; nothing at all where nothing has to be. */
type Saying<Spec extends Route> =
  Record<never, never> extends Asked<Spec> ? [asked?: Asked<Spec>] : [asked: Asked<Spec>];

/** Parts of what is asked by a route: a name in its path, its query, its body. */
export type ParamOf<Spec extends Route, Name extends string> =
  Asked<Spec> extends { readonly params: { readonly [Key in Name]: infer Value } } ? Value : never;
export type QueryOf<Spec extends Route> =
  Asked<Spec> extends { readonly query?: infer Query } ? Query : never;
export type BodyOf<Spec extends Route> =
  Asked<Spec> extends { readonly body?: infer Body } ? Body : never;

/** A file that came, and what it is called. */
export interface Download {
  readonly blob: Blob;
  readonly name: string;
}

/** Something large on its way: how much of it is there, from 0 to 1, and at last what was answered. */
export type Sending<Spec extends Route> =
  { readonly part: number } | { readonly answer: Answer<Spec> };

interface AnyAsked {
  readonly params?: Readonly<Record<string, unknown>>;
  readonly query?: Readonly<Record<string, unknown>>;
  readonly body?: unknown;
}

/**
 * Asks the server, by the routes of the contract. Nothing is asked until somebody subscribes; who unsubscribes gives it
 * up. Every answer is parsed; everything that fails is an `ApiError`.
 */
@Injectable({ providedIn: 'root' })
export class Api {
  private readonly http = inject(HttpClient);

  /** Emits what is answered, once. */
  call<const Spec extends Route>(spec: Spec, ...[asked]: Saying<Spec>): Observable<Answer<Spec>> {
    return this.request(
      spec,
      asked as AnyAsked,
      spec.answers === 'bytes' ? 'arraybuffer' : 'json',
    ).pipe(
      filter((event) => event.type === HttpEventType.Response),
      map((response) => answerIn(spec, response)),
    );
  }

  /** Emits the file that is answered, once. */
  download<const Spec extends Route>(spec: Spec, ...[asked]: Saying<Spec>): Observable<Download> {
    return this.request(spec, asked as AnyAsked, 'blob').pipe(
      filter((event) => event.type === HttpEventType.Response),
      switchMap(async ({ body, headers }) => {
        const { fileNameIn } = await import('./file-name');
        return { blob: body as Blob, name: fileNameIn(headers.get('content-disposition') ?? '') };
      }),
    );
  }

  /** Emits how far it is, and at last what is answered. */
  send<const Spec extends Route>(spec: Spec, asked: Asked<Spec>): Observable<Sending<Spec>> {
    return this.request(spec, asked as AnyAsked, 'json', true).pipe(
      mergeMap((event): Sending<Spec>[] => {
        if (event.type === HttpEventType.UploadProgress)
          return event.total ? [{ part: event.loaded / event.total }] : [];
        return event.type === HttpEventType.Response ? [{ answer: answerIn(spec, event) }] : [];
      }),
    );
  }

  private request(
    { method, path, consumes }: Route,
    { params, query, body }: AnyAsked = {},
    responseType: 'json' | 'arraybuffer' | 'blob',
    reportProgress = false,
  ): Observable<HttpEvent<unknown>> {
    const type = consumes && { headers: new HttpHeaders({ 'content-type': consumes[0]! }) };
    return this.http.request(method, `/api${addressOf({ path }, params, query)}`, {
      ...{ observe: 'events', reportProgress, ...type },
      // What has no body says so in JSON: a request that changes something is of a type no form can send.
      ...(method === 'POST' && { body: body ?? {} }),
      responseType: responseType as 'json',
    });
  }
}

/** Gives it up, with an `AbortError`, as soon as the signal says so. */
export function untilAborted<Value>(signal: AbortSignal): MonoTypeOperatorFunction<Value> {
  return (source) =>
    new Observable<Value>((listener) => {
      const stop = (): void => listener.error(new DOMException('given up', 'AbortError'));
      if (signal.aborted) return stop();
      signal.addEventListener('abort', stop);
      const subscription = source.subscribe(listener);
      return () => {
        signal.removeEventListener('abort', stop);
        subscription.unsubscribe();
      };
    });
}

/** What is answered at last; how far it is is told on the way. */
export async function lastAnswer<Spec extends Route>(
  sending: Observable<Sending<Spec>>,
  onProgress: (part: number) => void,
  signal: AbortSignal,
): Promise<Answer<Spec>> {
  const answered = sending.pipe(
    untilAborted(signal),
    tap((step) => 'part' in step && onProgress(step.part)),
    filter((step) => 'answer' in step),
  );
  return (await lastValueFrom(answered)).answer;
}

function answerIn<Spec extends Route>(
  { answers }: Spec,
  { status, body }: HttpResponse<unknown>,
): Answer<Spec> {
  if (answers === 'bytes') return new Uint8Array(body as ArrayBuffer) as Answer<Spec>;
  const parsed = answers[status]?.safeParse(body);
  if (!parsed?.success) throw new ApiError(OTHER_ANSWER, status);
  return parsed.data as Answer<Spec>;
}
