import type { FeatureName, KeptName, Person } from '@cuaderno/core/features';
import { CaptionsState } from './captions/captions-state';
import { captionsInRecord } from './captions/in-record';
import { LessonDoorState } from './door/door-state';
import type { FeatureComponents, InRecord, LessonFeature, Send, Stand } from './feature';
import { InStepState } from './in-step/in-step-state';
import { InvalidationState } from './invalidation/invalidation-state';
import { LessonBoardsState } from './lesson-boards/lesson-boards-state';
import { MediaState } from './media/media-state';
import { PensState } from './pens/pens-state';
import { PointingState } from './pointing/pointing-state';
import { presenceInRecord } from './presence/in-record';
import { PresenceState } from './presence/presence-state';
import { talkInRecord } from './talk/in-record';
import { TalkState } from './talk/talk-state';

/** Those of a lesson: what is about the line and the board is the session's, and the doorstep has lines of its own. */
type LessonFeatureName = Exclude<FeatureName, 'connection' | 'board' | 'ink' | 'doorstep'>;

/** What is said of a feature: what a window knows of it, where it shows itself, and what screens tell of it in a record. */
interface WebFeature<Name extends FeatureName> {
  state(send: Send, stand: Stand, people: () => readonly Person[]): LessonFeature<Name>;
  readonly views: FeatureComponents | null;
  readonly inRecord: Name extends KeptName ? InRecord<Name> : null;
}

/** Every feature of a lesson; one that core knows and that isn't here doesn't compile. */
export const FEATURES = {
  lessonBoards: {
    state: (_send, stand) => new LessonBoardsState(stand),
    views: null,
    inRecord: null,
  },
  pens: {
    state: (send, stand, people) => new PensState(send, stand, people),
    views: null,
    inRecord: null,
  },
  inStep: {
    state: (send, stand) => new InStepState(send, stand),
    views: null,
    inRecord: null,
  },
  pointing: { state: (send) => new PointingState(send), views: null, inRecord: null },
  presence: { state: (send) => new PresenceState(send), views: null, inRecord: presenceInRecord },
  talk: { state: (send) => new TalkState(send), views: null, inRecord: talkInRecord },
  captions: {
    state: (send) => new CaptionsState(send),
    views: {
      belowPage: () => import('./captions/captions-bar').then((m) => m.CaptionsBar),
      controls: null,
      aside: () => import('./captions/captions-choice').then((m) => m.CaptionsChoice),
      replay: () => import('./captions/replay-captions').then((m) => m.ReplayCaptions),
    },
    inRecord: captionsInRecord,
  },
  media: {
    state: (send, stand, people) => new MediaState(send, stand, people),
    views: {
      belowPage: () => import('./media/voice-notice').then((m) => m.VoiceNotice),
      controls: () => import('./media/microphone-switch').then((m) => m.MicrophoneSwitch),
      aside: () => import('./media/mute-all').then((m) => m.MuteAll),
      replay: null,
    },
    inRecord: null,
  },
  door: { state: (send) => new LessonDoorState(send), views: null, inRecord: null },
  invalidation: { state: () => new InvalidationState(), views: null, inRecord: null },
} satisfies { readonly [Name in LessonFeatureName]: WebFeature<Name> };

export type LessonFeatures = {
  readonly [Name in LessonFeatureName]: ReturnType<(typeof FEATURES)[Name]['state']>;
};

/** All of them, as a window has them of one lesson. */
export function lessonFeatures(send: Send, stand: Stand): LessonFeatures {
  const features: LessonFeatures = Object.fromEntries(
    Object.entries(FEATURES).map(([name, { state }]) => [
      name,
      state(send, stand, () => features.presence.people()),
    ]),
  ) as unknown as LessonFeatures;
  return features;
}
