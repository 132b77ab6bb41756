import { signal } from '@angular/core';
import type { ClientMessage, Microphone } from '@cuaderno/core/features';
import { newId } from '@cuaderno/core/id';
import type { MediaPath, PeerWord } from './media-path';
import { MediaState } from './media-state';
import { MICROPHONE_FAULTS } from './microphone-input';

/** What a path would be told. */
class PretendPath implements MediaPath {
  readonly received = signal<ReadonlyMap<string, MediaStreamTrack>>(new Map());
  connected: readonly string[] = [];
  voice: MediaStreamTrack | null = null;
  readonly heard: [string, PeerWord][] = [];
  isClosed = false;

  connect(windows: readonly string[]): void {
    this.connected = windows;
  }
  sendVoice(track: MediaStreamTrack | null): void {
    this.voice = track;
  }
  hear(from: string, word: PeerWord): void {
    this.heard.push([from, word]);
  }
  level = 0;
  levelOf(): number {
    return this.level;
  }
  close(): void {
    this.isClosed = true;
  }
}

describe('voices, as a window knows them', () => {
  let sent: ClientMessage[];
  let paths: PretendPath[];
  let state: MediaState;
  let context: AudioContext;
  let isAble: boolean;
  const path = (): PretendPath => paths.at(-1)!;
  const said = (): Microphone[] =>
    sent.flatMap((message) => (message.kind === 'media.microphone' ? [message.microphone] : []));
  const track = (): MediaStreamTrack =>
    context.createMediaStreamDestination().stream.getAudioTracks()[0]!;
  const asks = (answer: () => Promise<MediaStream>): jasmine.Spy =>
    spyOn(navigator.mediaDevices, 'getUserMedia').and.callFake(answer);
  const begin = (window = 'w1', times = 0): void =>
    state.handlers['media.begin']({
      ...{ kind: 'media.begin', window, servers: [], speaks: true },
      muted: { times, by: times > 0 ? 'maren' : null },
    });
  const windows = (...all: [id: string, person: string, microphone: Microphone][]): void =>
    state.handlers['media.windows']({
      kind: 'media.windows',
      windows: all.map(([id, person, microphone]) => ({ id, person, microphone })),
    });

  beforeEach(() => {
    context = new AudioContext();
    sent = [];
    isAble = true;
    paths = [];
    state = new MediaState(
      (message) => sent.push(message) > 0,
      (message) => void sent.push(message),
      () => [],
      () => isAble,
      () => {
        paths.push(new PretendPath());
        return path();
      },
    );
    begin();
  });
  afterEach(() => {
    state.clear();
    void context.close();
  });

  it('are switched on and muted by one touch, and the browser is asked once', async () => {
    const voice = track();
    const asked = asks(async () => new MediaStream([voice]));
    await state.toggle();
    expect([state.own(), path().voice, voice.enabled]).toEqual(['on', voice, true]);
    await state.toggle();
    expect([state.own(), voice.enabled]).toEqual(['muted', false]);
    await state.toggle();
    expect(said()).toEqual(['on', 'muted', 'on']);
    expect(asked).toHaveBeenCalledTimes(1);
    // Speech is cleaned where it is spoken.
    expect(asked.calls.argsFor(0)[0].audio.echoCancellation).toBeTrue();
  });

  it('go to the windows of others, and none of one’s own', () => {
    windows(['w1', 'maren', 'off'], ['w2', 'maren', 'off'], ['w3', 'ida', 'on']);
    expect(path().connected).toEqual(['w3']);
    expect([...state.voices()]).toEqual([['ida', 'on']]);
  });

  it('of somebody with two windows are on where one of these is', () => {
    windows(['w2', 'ida', 'on'], ['w3', 'ida', 'muted'], ['w4', 'noor', 'muted']);
    expect([...state.voices()].sort()).toEqual([
      ['ida', 'on'],
      ['noor', 'muted'],
    ]);
  });

  it('are played only of whose microphone is on, whatever comes', async () => {
    const plays = spyOn(HTMLMediaElement.prototype, 'play').and.resolveTo();
    path().received.set(new Map([['w3', track()]]));
    windows(['w1', 'maren', 'off'], ['w3', 'ida', 'muted']);
    const audio = (): HTMLAudioElement => plays.calls.first().object as HTMLAudioElement;
    expect(audio().muted).toBeTrue();
    windows(['w1', 'maren', 'off'], ['w3', 'ida', 'on']);
    expect(audio().muted).toBeFalse();
    expect(plays).toHaveBeenCalledTimes(1);
    path().received.set(new Map());
    windows(['w1', 'maren', 'off']);
    expect(audio().srcObject).toBeNull();
  });

  it('are played in one of somebody’s windows: where they speak, else where they came last', () => {
    const plays = spyOn(HTMLMediaElement.prototype, 'play').and.resolveTo();
    path().received.set(new Map([['w3', track()]]));
    const isHeard = (own: Microphone, others: Microphone, last = false): boolean => {
      const two: [string, string, Microphone][] = [
        ['w1', 'maren', own],
        ['w2', 'maren', others],
      ];
      windows(...(last ? two.reverse() : two), ['w3', 'ida', 'on']);
      return !(plays.calls.first().object as HTMLAudioElement).muted;
    };
    expect(isHeard('off', 'off')).toBeFalse();
    expect(isHeard('off', 'off', true)).toBeTrue();
    expect(isHeard('off', 'muted', true)).toBeFalse();
    expect(isHeard('on', 'muted')).toBeTrue();
    expect(isHeard('muted', 'on')).toBeFalse();
  });

  it('wait for a touch where the browser wants one', async () => {
    const plays = spyOn(HTMLMediaElement.prototype, 'play').and.rejectWith(
      new DOMException('', 'NotAllowedError'),
    );
    path().received.set(new Map([['w3', track()]]));
    windows(['w1', 'maren', 'off'], ['w3', 'ida', 'on']);
    await Promise.resolve();
    expect(state.player.isBlocked()).toBeTrue();
    plays.and.resolveTo();
    await state.player.startAll();
    expect(state.player.isBlocked()).toBeFalse();
  });

  it('are muted by who teaches, and asked for; nobody is switched on from outside', async () => {
    const voice = track();
    asks(async () => new MediaStream([voice]));
    state.handlers['media.ask']({ kind: 'media.ask', by: 'maren' });
    expect([state.askedBy(), state.own()]).toEqual(['maren', 'off']);
    await state.toggle();
    expect(state.askedBy()).toBeNull();
    // Asked for what is done already, one isn't bothered.
    state.handlers['media.ask']({ kind: 'media.ask', by: 'maren' });
    expect(state.askedBy()).toBeNull();
    state.handlers['media.mute']({ kind: 'media.mute', muted: { times: 1, by: 'maren' } });
    expect([state.own(), voice.enabled, state.mutedBy()]).toEqual(['muted', false, 'maren']);
    state.handlers['media.ask']({ kind: 'media.ask', by: 'maren' });
    expect([state.askedBy(), state.mutedBy(), state.own()]).toEqual(['maren', null, 'muted']);
    await state.toggle();
    expect([state.own(), state.mutedBy()]).toEqual(['on', null]);
  });

  it('are seen while they speak, and until they are muted or have drawn breath', async () => {
    const speaks = async (is: boolean): Promise<void> => {
      while (state.speaking().has('ida') !== is) await new Promise((done) => setTimeout(done, 20));
    };
    windows(['w1', 'maren', 'off'], ['w3', 'ida', 'on']);
    path().level = 0.5;
    await speaks(true);
    expect([...state.speaking()]).toEqual(['ida']);
    path().level = 0;
    await speaks(false);
    path().level = 0.5;
    await speaks(true);
    windows(['w1', 'maren', 'off'], ['w3', 'ida', 'muted']);
    await speaks(false);
  });

  it('that can’t be had are told in plain words, and one listens', async () => {
    const asked = asks(() => Promise.reject(new Error()));
    for (const [name, fault] of [
      ['NotAllowedError', 'denied'],
      ['NotFoundError', 'missing'],
      ['NotReadableError', 'busy'],
    ] as const) {
      asked.and.rejectWith(new DOMException('', name));
      await state.toggle();
      expect([state.fault(), state.own()]).toEqual([fault, 'off']);
      expect(MICROPHONE_FAULTS[fault]).toMatch(/switch it on again\.$/);
    }
    expect(said()).toEqual([]);
  });

  it('that the browser can’t carry are told once somebody speaks, and by the switch', async () => {
    isAble = false;
    state.clear();
    begin();
    windows(['w1', 'maren', 'off'], ['w3', 'ida', 'off']);
    expect(state.fault()).toBeNull();
    windows(['w1', 'maren', 'off'], ['w3', 'ida', 'on']);
    expect(state.fault()).toBe('unable');
    state.fault.set(null);
    windows(['w1', 'maren', 'off'], ['w3', 'ida', 'on'], ['w4', 'noor', 'on']);
    expect(state.fault()).toBeNull();
    await state.toggle();
    expect([state.fault(), state.own(), paths.length]).toEqual(['unable', 'off', 1]);
  });

  it('that go while they are on are told', async () => {
    const voice = track();
    const asked = asks(async () => new MediaStream([voice]));
    await state.toggle();
    spyOn(navigator.mediaDevices, 'enumerateDevices').and.resolveTo([]);
    asked.and.rejectWith(new DOMException('', 'NotFoundError'));
    voice.dispatchEvent(new Event('ended'));
    while (state.fault() !== 'gone') await new Promise((done) => setTimeout(done));
    expect([state.own(), state.fault(), path().voice]).toEqual(['off', 'gone', null]);
    expect(said()).toEqual(['on', 'off']);
  });

  it('go on by a new way when the line is back', async () => {
    const voice = track();
    asks(async () => new MediaStream([voice]));
    await state.toggle();
    begin('w9');
    expect([paths[0]!.isClosed, path().voice, said()]).toEqual([true, voice, ['on', 'on']]);
    windows(['w9', 'maren', 'on'], ['w3', 'ida', 'off']);
    expect(path().connected).toEqual(['w3']);
  });

  it('that were muted while the line was away are muted when it is back', async () => {
    const voice = track();
    asks(async () => new MediaStream([voice]));
    await state.toggle();
    begin('w8');
    expect([state.own(), state.mutedBy()]).toEqual(['on', null]);
    begin('w9', 1);
    expect([state.own(), voice.enabled, state.mutedBy()]).toEqual(['muted', false, 'maren']);
    await state.toggle();
    begin('w10', 1);
    expect(state.own()).toBe('on');
  });

  it('are as they were where a tab comes back to the lesson, and off in another', async () => {
    sessionStorage.clear();
    const [lesson, other] = [newId(), newId()];
    asks(async () => new MediaStream([track()]));
    state.begin(lesson);
    await state.toggle();
    const comesBack = async (to: string): Promise<Microphone> => {
      state.leave();
      state.begin(to);
      begin();
      while (state.microphone.isOpening()) await new Promise((done) => setTimeout(done));
      return state.own();
    };
    expect(await comesBack(lesson)).toBe('on');
    await state.toggle();
    expect(await comesBack(lesson)).toBe('muted');
    expect(await comesBack(other)).toBe('off');
    expect(await comesBack(lesson)).toBe('muted');
    // Once it is over, nothing goes on.
    state.clear();
    expect(await comesBack(lesson)).toBe('off');
    sessionStorage.clear();
  });

  it('end with the lesson, and the microphone is let go', async () => {
    const voice = track();
    asks(async () => new MediaStream([voice]));
    await state.toggle();
    state.clear();
    expect([path().isClosed, voice.readyState, state.own()]).toEqual([true, 'ended', 'off']);
  });

  it('that come when the lesson is over already are let go as well', async () => {
    const voice = track();
    let give!: (stream: MediaStream) => void;
    asks(() => new Promise((done) => (give = done)));
    const asked = state.toggle();
    state.clear();
    give(new MediaStream([voice]));
    await asked;
    expect([voice.readyState, state.own()]).toEqual(['ended', 'off']);
  });
});
