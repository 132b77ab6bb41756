import type { ClientMessage } from '@cuaderno/core/features';
import { SessionDescription, IceCandidate } from '@cuaderno/core/features';
import type { PeerWord } from './media-path';
import { Mesh } from './mesh';
import { VoicePlayer } from './voice-player';

/** Windows whose words go from one to the other as the server passes them on. */
class Class {
  readonly windows = new Map<string, Mesh>();
  readonly said: ClientMessage[] = [];
  private readonly context = new AudioContext();

  join(id: string): Mesh {
    const mesh = new Mesh(id, [], (message) => this.passOn(id, message));
    this.windows.set(id, mesh);
    for (const [one, of] of this.windows)
      of.connect([...this.windows.keys()].filter((other) => other !== one));
    return mesh;
  }

  leave(id: string): void {
    this.windows.get(id)!.close();
    this.windows.delete(id);
    for (const [one, of] of this.windows)
      of.connect([...this.windows.keys()].filter((other) => other !== one));
  }

  /** A voice that hums. */
  hum(): MediaStreamTrack {
    const tone = this.context.createOscillator();
    const out = this.context.createMediaStreamDestination();
    tone.connect(out);
    tone.start();
    return out.stream.getAudioTracks()[0]!;
  }

  end(): void {
    for (const mesh of this.windows.values()) mesh.close();
    void this.context.close();
  }

  private passOn(from: string, message: ClientMessage): void {
    this.said.push(message);
    const { to, ...word } = message as PeerWord & { to: string };
    // Never at once, as on a line.
    setTimeout(() => this.windows.get(to)?.hear(from, word));
  }
}

describe('voices from window to window', () => {
  let all: Class;
  beforeEach(() => {
    all = new Class();
  });
  afterEach(() => all.end());

  const until = async (what: () => boolean): Promise<void> => {
    while (!what()) await new Promise((done) => setTimeout(done, 20));
  };
  /** Browsers measure what they play. */
  const hears = async (mesh: Mesh, window: string): Promise<void> => {
    await until(() => mesh.received().has(window));
    const player = new VoicePlayer();
    player.play(mesh.received(), new Set([window]));
    await until(() => mesh.levelOf(window) > 0.01);
    player.play(new Map(), new Set());
  };

  it('are heard by all others, also by who comes late, and both ways', async () => {
    const [maren, ida] = [all.join('a'), all.join('b')];
    maren.sendVoice(all.hum());
    await hears(ida, 'a');
    expect(ida.received().get('a')?.kind).toBe('audio');
    const noor = all.join('c');
    await hears(noor, 'a');
    ida.sendVoice(all.hum());
    await Promise.all([hears(maren, 'b'), hears(noor, 'b')]);
    expect(maren.levelOf('c')).toBe(0);
  });

  it('find a way when both sides speak up at the same moment', async () => {
    const [maren, ida] = [all.join('a'), all.join('b')];
    maren.sendVoice(all.hum());
    ida.sendVoice(all.hum());
    await Promise.all([hears(ida, 'a'), hears(maren, 'b')]);
  });

  it('need nothing where nobody speaks', async () => {
    all.join('a');
    all.join('b');
    await new Promise((done) => setTimeout(done, 50));
    expect(all.said).toEqual([]);
  });

  it('end with the window that they come from', async () => {
    const [maren, ida] = [all.join('a'), all.join('b')];
    maren.sendVoice(all.hum());
    await hears(ida, 'a');
    all.leave('a');
    expect(ida.received().size).toBe(0);
    expect(ida.levelOf('a')).toBe(0);
  });

  it('are described in words that the server takes', async () => {
    const [maren, ida] = [all.join('a'), all.join('b')];
    maren.sendVoice(all.hum());
    await hears(ida, 'a');
    for (const message of all.said)
      if (message.kind === 'media.describe')
        expect(SessionDescription.safeParse(message.description).success)
          .withContext(message.description.sdp)
          .toBeTrue();
      else if (message.kind === 'media.candidate')
        expect(IceCandidate.safeParse(message.candidate).success)
          .withContext(JSON.stringify(message.candidate))
          .toBeTrue();
  });

  it('aren’t disturbed by who isn’t there, nor by what makes no sense', async () => {
    const [maren, ida] = [all.join('a'), all.join('b')];
    const sdp = 'v=0\r\no=- 1 2 IN IP4 127.0.0.1\r\ns=-\r\nt=0 0\r\n';
    ida.hear('x', { kind: 'media.describe', description: { type: 'offer', sdp } });
    ida.hear('a', { kind: 'media.describe', description: { type: 'answer', sdp } });
    ida.hear('a', {
      kind: 'media.candidate',
      candidate: { candidate: '', sdpMid: 'x', sdpMLineIndex: 3, usernameFragment: null },
    });
    maren.sendVoice(all.hum());
    await hears(ida, 'a');
    expect(ida.received().has('x')).toBeFalse();
  });
});
