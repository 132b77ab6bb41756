import { liveFeature } from '../feature.js';

/** What a window fetched besides the board isn't so any more: it fetches it again. */
export const invalidation = liveFeature({
  clientMessages: {},
  serverMessages: {
    /** What students may look at of the tutor's materials. */
    materials: {},
    /** A file was handed over, fetched or taken back. */
    handed: {},
    /** To the tutor: late lines have come, or wait no more. To a student: the tutor has added theirs, or left them. */
    late: {},
  },
  record: null,
  said: [],
});
