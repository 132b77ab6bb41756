import { OwnMicrophone } from './own-microphone';
import { chosenMicrophone } from './sound-choice';

describe('the microphone of a window', () => {
  let context: AudioContext;
  let microphone: OwnMicrophone;
  let here: string[];
  let asked: jasmine.Spy;
  let changes: string[];
  const until = async (is: () => boolean): Promise<void> => {
    while (!is()) await new Promise((done) => setTimeout(done));
  };
  const nowThereAre = (...ids: string[]): void => {
    here = ids;
    navigator.mediaDevices.dispatchEvent(new Event('devicechange'));
  };
  /** Which one the browser was asked for last; `undefined` for what the machine takes. */
  const wanted = (): string | undefined => asked.calls.mostRecent().args[0].audio.deviceId?.ideal;

  beforeEach(async () => {
    localStorage.clear();
    context = new AudioContext();
    here = ['built in'];
    changes = [];
    spyOn(navigator.mediaDevices, 'enumerateDevices').and.callFake(async () =>
      here.map((id) => ({
        ...{ deviceId: id, label: id, kind: 'audioinput', groupId: '' },
        toJSON: () => id,
      })),
    );
    asked = spyOn(navigator.mediaDevices, 'getUserMedia').and.callFake(async () => {
      if (here.length === 0) throw new DOMException('', 'NotFoundError');
      return context.createMediaStreamDestination().stream;
    });
    microphone = new OwnMicrophone(() => changes.push(microphone.state()));
    await microphone.open('on');
  });
  afterEach(() => {
    microphone.release();
    void context.close();
    localStorage.clear();
  });

  it('is asked about where a new one is plugged in, and that one is known from then on', async () => {
    nowThereAre('built in', 'headset');
    await until(() => microphone.plugged() !== null);
    expect(microphone.plugged()!.name).toBe('headset');
    const before = microphone.track!;
    await microphone.use(microphone.plugged()!);
    expect([wanted(), before.readyState, microphone.state()]).toEqual(['headset', 'ended', 'on']);
    expect(chosenMicrophone()?.id).toBe('headset');
    nowThereAre('built in');
    await microphone.open('on', 'built in');
    nowThereAre('built in', 'headset');
    await until(() => microphone.switched() !== null);
    expect([wanted(), microphone.plugged()]).toEqual(['headset', null]);
  });

  it('that is pulled out again before anyone answered isn’t asked about any more', async () => {
    nowThereAre('built in', 'headset');
    await until(() => microphone.plugged() !== null);
    nowThereAre('built in');
    await until(() => microphone.plugged() === null);
    expect(microphone.state()).toBe('on');
  });

  it('that is pulled out is replaced by another, muted where it was', async () => {
    microphone.set('muted');
    microphone.track!.dispatchEvent(new Event('ended'));
    await until(() => microphone.switched() !== null);
    expect([microphone.state(), microphone.switched()!.isGone]).toEqual(['muted', true]);
    expect(microphone.track!.enabled).toBeFalse();
  });

  it('that was the only one is waited for, and goes on as it was', async () => {
    here = [];
    microphone.track!.dispatchEvent(new Event('ended'));
    await until(() => microphone.fault() === 'gone');
    expect([microphone.state(), microphone.track]).toEqual(['off', null]);
    nowThereAre();
    nowThereAre('headset');
    await until(() => microphone.switched() !== null);
    expect([microphone.state(), microphone.fault(), changes.at(-1)]).toEqual(['on', null, 'on']);
  });

  it('is nobody’s once it was given back, whatever is plugged in', async () => {
    microphone.release();
    nowThereAre('built in', 'headset');
    await until(() => true);
    expect([microphone.state(), microphone.plugged()]).toEqual(['off', null]);
    expect(asked).toHaveBeenCalledTimes(1);
  });
});
