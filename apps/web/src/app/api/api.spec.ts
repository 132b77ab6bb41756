import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Api, ApiError } from './api';
import { SignedOut } from './signed-out';

describe('what was to be done when the session had ended', () => {
  const answer = (status: number, body: object): Response =>
    new Response(JSON.stringify(body), { status });
  const OVER = { type: 'urn:cuaderno:not-signed-in', title: 'You are not signed in.', detail: '' };
  let api: Api;
  let answers: Response[];

  beforeEach(() => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    api = TestBed.inject(Api);
    spyOn(window, 'fetch').and.callFake(() => Promise.resolve(answers.shift()!));
  });

  it('waits until somebody is signed in again, and is done then', async () => {
    answers = [answer(401, OVER), answer(401, OVER), answer(200, { n: 1 }), answer(200, { n: 1 })];
    let asked = 0;
    const wasAsked = new Promise<(isSignedIn: boolean) => void>((tell) => {
      TestBed.inject(SignedOut).answerWith(() => {
        asked++;
        return new Promise((signIn) => tell(signIn));
      });
    });
    const both = Promise.all([api.get('/one'), api.post('/two')]);
    (await wasAsked)(true);
    expect(await both).toEqual([{ n: 1 }, { n: 1 }]);
    // However many found it out, they are asked once.
    expect(asked).toBe(1);
  });

  it('is told as it is where nobody can be asked, as on a student’s screen', async () => {
    answers = [answer(401, OVER)];
    const error = await api.get('/one').catch((thrown: unknown) => thrown);
    expect(error instanceof ApiError && error.code).toBe('not-signed-in');
  });
});
