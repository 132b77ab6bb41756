import type { FeatureName, KeptName } from '@cuaderno/core';
import type { Database } from '../../database/index.js';
import type { LiveService } from '../service.js';
import { BoardMessages } from './board/board-messages.js';
import { CaptionStore } from './captions/caption-store.js';
import { Captioning } from './captions/captioning.js';
import { keptCaptions } from './captions/kept.js';
import { DoorWords } from './door/door-words.js';
import type { LiveFeature } from './feature.js';
import { Leading } from './in-step/leading.js';
import { LiveInk } from './ink/live-ink.js';
import type { KeptPart } from './kept-part.js';
import { ShowingBoards } from './lesson-boards/showing-boards.js';
import { IceServers } from './media/ice-servers.js';
import { Media } from './media/media.js';
import { PenControl } from './pens/pen-control.js';
import { Pointing } from './pointing/pointing.js';
import { keptPresence } from './presence/kept.js';
import { Presence } from './presence/presence.js';
import { keptTalk } from './talk/kept.js';
import { TalkStore } from './talk/talk-store.js';
import { Talking } from './talk/talking.js';

/** Those of a lesson: the greeting and the heartbeat are the line's own, and the doorstep has lines of its own. */
export type HandledFeature = Exclude<FeatureName, 'connection' | 'doorstep'>;

/** What is said of a feature: what is done in a lesson, and what is left when that is over. */
interface ServerFeature<Name extends FeatureName> {
  live(service: LiveService, db: Database): LiveFeature<Name>;
  readonly kept: Name extends KeptName ? KeptPart<Name> : null;
}

/** Every feature of a lesson; one that core knows and that isn't here doesn't compile. Who comes is greeted in this order. */
export const FEATURES = {
  lessonBoards: { live: (service) => new ShowingBoards(service), kept: null },
  inStep: { live: (service) => new Leading(service), kept: null },
  pens: { live: (service) => new PenControl(service), kept: null },
  pointing: { live: (service) => new Pointing(service), kept: null },
  talk: { live: (service, db) => new Talking(service, new TalkStore(db)), kept: keptTalk },
  captions: {
    live: (service, db) => new Captioning(service, new CaptionStore(db)),
    kept: keptCaptions,
  },
  media: { live: (service) => new Media(service, new IceServers(service.ice)), kept: null },
  presence: { live: (service) => new Presence(service), kept: keptPresence },
  door: { live: (service) => new DoorWords(service), kept: null },
  board: { live: (service) => new BoardMessages(service), kept: null },
  ink: { live: () => new LiveInk(), kept: null },
  // Nothing is said of it by windows, and who comes has fetched all anew.
  invalidation: {
    live: () => ({
      handlers: {},
      restore: () => undefined,
      sendSnapshot: () => undefined,
      leave: () => undefined,
    }),
    kept: null,
  },
} satisfies { readonly [Name in HandledFeature]: ServerFeature<Name> };
