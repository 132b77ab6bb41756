import type { IceServer, SessionDescription } from '@cuaderno/core/features';
import type { PeerWord } from './media-path';

/** What a window needs to hear another. */
export interface PeerSettings {
  readonly servers: readonly IceServer[];
  /** Which of two gives way when both offer at once: one of them has to. */
  readonly polite: boolean;
  say(word: PeerWord): void;
  /** A voice came. */
  heard(track: MediaStreamTrack): void;
}

/**
 * One other window, by the pattern of perfect negotiation (W3C WebRTC 1.0, section 10.7): either side may change what it
 * sends at any time, and neither has to know what the other is about.
 */
export class Peer {
  private readonly connection: RTCPeerConnection;
  private readonly stream = new MediaStream();
  private sender: RTCRtpSender | null = null;
  private isOffering = false;
  private isTakingAnswer = false;

  constructor(private readonly settings: PeerSettings) {
    const { servers, say, heard } = settings;
    const connection = new RTCPeerConnection({
      iceServers: servers.map((server) => ({ ...server })),
    });
    this.connection = connection;
    connection.onnegotiationneeded = () => void this.offer();
    connection.onicecandidate = ({ candidate }) => {
      // The last one says that there are no more: browsers find that out by themselves.
      if (!candidate) return;
      const { sdpMid, sdpMLineIndex, usernameFragment } = candidate;
      say({
        kind: 'media.candidate',
        candidate: {
          ...{ candidate: candidate.candidate, sdpMid, sdpMLineIndex },
          usernameFragment: usernameFragment || null,
        },
      });
    };
    connection.ontrack = ({ track }) => heard(track);
    connection.onconnectionstatechange = () => {
      // Another network, or none for a while: a new way is looked for.
      if (connection.connectionState === 'failed') connection.restartIce();
    };
  }

  sendVoice(track: MediaStreamTrack | null): void {
    if (this.sender) void this.sender.replaceTrack(track);
    else if (track) this.sender = this.connection.addTrack(track, this.stream);
  }

  async hear(word: PeerWord): Promise<void> {
    try {
      if (word.kind === 'media.describe') await this.take(word.description);
      else await this.connection.addIceCandidate(word.candidate);
    } catch (error) {
      // What belongs to an offer that was passed over is nothing; all else that the browser won't take is wrong with the
      // other side, and ends there: this window goes on.
      if (!(error instanceof DOMException || error instanceof TypeError)) throw error;
    }
  }

  /** How loud it is this moment, from 0 to 1. */
  get level(): number {
    const [receiver] = this.connection.getReceivers();
    return receiver?.getSynchronizationSources()[0]?.audioLevel ?? 0;
  }

  close(): void {
    this.connection.close();
  }

  private get isClosed(): boolean {
    return this.connection.signalingState === 'closed';
  }

  private async offer(): Promise<void> {
    this.isOffering = true;
    try {
      await this.describe();
    } finally {
      this.isOffering = false;
    }
  }

  private async take(description: SessionDescription): Promise<void> {
    const { connection } = this;
    const isOffer = description.type === 'offer';
    const isFree =
      !this.isOffering && (connection.signalingState === 'stable' || this.isTakingAnswer);
    if (isOffer && !isFree && !this.settings.polite) return;
    this.isTakingAnswer = !isOffer;
    // Where this side has offered as well and gives way, its offer is taken back by this.
    await connection.setRemoteDescription(description).finally(() => {
      this.isTakingAnswer = false;
    });
    if (isOffer) await this.describe();
  }

  /** Says what this side sends and takes: an offer, or the answer to one. */
  private async describe(): Promise<void> {
    const { connection } = this;
    if (this.isClosed) return;
    await connection.setLocalDescription();
    const made = connection.localDescription;
    if (!made || (made.type !== 'offer' && made.type !== 'answer')) return;
    this.settings.say({
      kind: 'media.describe',
      description: { type: made.type, sdp: made.sdp },
    });
  }
}
