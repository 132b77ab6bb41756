import { provideHttpClient, withInterceptors } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { route } from '@cuaderno/contract/route';
import { firstValueFrom } from 'rxjs';
import * as z from 'zod';
import { Api, lastAnswer, untilAborted } from './api';
import { problems, signInAgain } from './interceptors';
import type { ApiError } from './problem';
import { SignedOut } from './signed-out';

const tide = route({
  ...{ method: 'GET', path: '/tides/:harbour', who: 'tutor', tag: 'tides', summary: '' },
  params: z.object({ harbour: z.string() }),
  query: z.object({ day: z.number().optional() }),
  answers: { 200: z.object({ metres: z.number() }) },
});
const chart = route({
  ...{ method: 'POST', path: '/charts', who: 'tutor', tag: 'tides', summary: '' },
  consumes: ['application/octet-stream'],
  answers: { 201: z.object({ pages: z.number() }) },
});
const picture = route({
  ...{ method: 'GET', path: '/charts/:chart/picture', who: 'tutor', tag: 'tides', summary: '' },
  params: z.object({ chart: z.string() }),
  answers: 'bytes',
});
const OVER = { type: 'urn:cuaderno:not-signed-in', title: 'You are not signed in.', detail: '' };

describe('what is asked of the server', () => {
  let api: Api;
  let server: HttpTestingController;

  beforeEach(() => {
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideHttpClient(withInterceptors([signInAgain, problems])),
        provideHttpClientTesting(),
      ],
    });
    api = TestBed.inject(Api);
    server = TestBed.inject(HttpTestingController);
  });
  afterEach(() => server.verify());

  const thrown = (asked: Promise<unknown>): Promise<ApiError> =>
    asked.then(
      () => fail('nothing was thrown') as never,
      (error: unknown) => error as ApiError,
    );
  /** All that waits for a turn of the event loop has had one. */
  const turn = (): Promise<void> => new Promise((done) => setTimeout(done));

  it('is asked at its address, and answered with what was parsed', async () => {
    const asked = firstValueFrom(
      api.call(tide, { params: { harbour: 'Bodø & Å' }, query: { day: 3 } }),
    );
    const request = server.expectOne('/api/tides/Bod%C3%B8%20%26%20%C3%85?day=3');
    request.flush({ metres: 2.4, unasked: true });
    expect(await asked).toEqual({ metres: 2.4 });
  });

  it('is a problem where the answer isn’t what was asked for', async () => {
    const asked = thrown(firstValueFrom(api.call(tide, { params: { harbour: 'Bodø' } })));
    server.expectOne('/api/tides/Bod%C3%B8').flush({ metres: 'high' });
    const error = await asked;
    expect([error.code, error.problem.title]).toEqual([
      'other-answer',
      'Cuaderno’s answer can’t be read here.',
    ]);
  });

  it('says in the server’s words why something can’t be done, also where bytes were asked for', async () => {
    const gone = { type: 'urn:cuaderno:not-found', title: 'That isn’t there.', detail: 'Go back.' };
    const asked = thrown(firstValueFrom(api.call(picture, { params: { chart: 'x' } })));
    const bytes = new TextEncoder().encode(JSON.stringify(gone)).buffer;
    server.expectOne('/api/charts/x/picture').flush(bytes, { status: 404, statusText: 'gone' });
    expect((await asked).problem).toEqual(gone);
  });

  it('says that Cuaderno can’t be reached where nobody answers, or somebody else does', async () => {
    const nobody = thrown(firstValueFrom(api.call(tide, { params: { harbour: 'Oslo' } })));
    server.expectOne('/api/tides/Oslo').error(new ProgressEvent('error'));
    const proxy = thrown(firstValueFrom(api.call(tide, { params: { harbour: 'Oslo' } })));
    server
      .expectOne('/api/tides/Oslo')
      .flush('<h1>Bad gateway</h1>', { status: 502, statusText: 'Bad gateway' });
    for (const error of await Promise.all([nobody, proxy])) expect(error.code).toBe('no-line');
  });

  it('tells how far something large is, and is given up when that is wanted', async () => {
    const parts: number[] = [];
    const whole = new AbortController();
    const body = new Blob(['low water']);
    const sent = lastAnswer(api.send(chart, { body }), (part) => parts.push(part), whole.signal);
    const request = server.expectOne('/api/charts');
    expect(request.request.headers.get('content-type')).toBe('application/octet-stream');
    request.event({ type: 1, loaded: 3, total: 9 });
    request.flush({ pages: 2 }, { status: 201, statusText: 'made' });
    expect([await sent, parts]).toEqual([{ pages: 2 }, [1 / 3]]);

    const given = new AbortController();
    const up = thrown(firstValueFrom(api.call(chart, { body }).pipe(untilAborted(given.signal))));
    const open = server.expectOne('/api/charts');
    given.abort();
    expect([(await up).name, open.cancelled]).toEqual(['AbortError', true]);
  });

  it('waits until somebody is signed in again, and is done then', async () => {
    let asked = 0;
    let signIn: (isSignedIn: boolean) => void = () => fail('nobody was asked');
    TestBed.inject(SignedOut).answerWith(() => {
      asked++;
      return new Promise((tell) => (signIn = tell));
    });
    const both = Promise.all(
      ['Oslo', 'Bergen'].map((harbour) => firstValueFrom(api.call(tide, { params: { harbour } }))),
    );
    for (const request of server.match(() => true))
      request.flush(OVER, { status: 401, statusText: 'over' });
    await turn();
    signIn(true);
    await turn();
    for (const request of server.match(() => true)) request.flush({ metres: 1 });
    expect(await both).toEqual([{ metres: 1 }, { metres: 1 }]);
    // However many found it out, they are asked once.
    expect(asked).toBe(1);
  });

  it('is told as it is where nobody can be asked, as on a student’s screen', async () => {
    const asked = thrown(firstValueFrom(api.call(tide, { params: { harbour: 'Oslo' } })));
    server.expectOne('/api/tides/Oslo').flush(OVER, { status: 401, statusText: 'over' });
    expect((await asked).code).toBe('not-signed-in');
  });
});
