import * as z from 'zod';
import { Id } from '../../id/index.js';
import { liveFeature } from '../feature.js';
import { SMALL } from '../limits.js';
import { IceCandidate, SessionDescription } from './description.js';
import { IceServer, MediaWindow, Microphone, Muted } from './microphone.js';

/** Voices: windows agree, two by two, on how they are sent, and everyone knows whose microphone is on. */
export const media = liveFeature({
  clientMessages: {
    /** What the sender's window offers another, or answers it. */
    'media.describe': {
      from: 'watcher',
      to: 'window',
      byItself: true,
      limits: { bytes: 26_000, values: 16, text: 25_000, depth: 3 },
      fields: { description: SessionDescription },
    },
    /** A way on which the sender's window may be reached. */
    'media.candidate': {
      from: 'watcher',
      to: 'window',
      byItself: true,
      limits: { ...SMALL, bytes: 1_200, text: 1_000 },
      fields: { candidate: IceCandidate },
    },
    /** What this window's microphone is. */
    'media.microphone': { from: 'student', limits: SMALL, fields: { microphone: Microphone } },
    /** Mutes somebody, or everyone who doesn't teach, or all of these but who leads. They may switch on again. */
    'media.mute': {
      from: 'helper',
      limits: SMALL,
      fields: { who: z.union([z.enum(['all', 'all-but-lead']), Id]) },
    },
    /** Asks somebody to switch their microphone on: it is theirs to do. */
    'media.ask': { from: 'helper', limits: SMALL, fields: { who: Id } },
  },
  serverMessages: {
    'media.describe': { from: Id, description: SessionDescription },
    'media.candidate': { from: Id, candidate: IceCandidate },
    /**
     * To who comes: the window's own id, servers by which windows find a way to one another, and how often its person was
     * muted in this lesson. Where that is more than the window knows of, it was muted while its line was away.
     */
    'media.begin': {
      window: Id,
      servers: z.array(IceServer),
      /** Whether they may be heard; otherwise they only listen. */
      speaks: z.boolean(),
      muted: Muted,
    },
    /** Every window of the lesson and what its microphone is: whenever one comes, goes or changes. */
    'media.windows': { windows: z.array(MediaWindow) },
    /** Who looks through this window was muted. */
    'media.mute': { muted: Muted },
    /** Somebody would like to hear who looks through this window. */
    'media.ask': { by: Id },
  },
  record: null,
  said: [],
});
