import * as z from 'zod';
import { Id } from '../../id/index.js';
import { liveFeature } from '../feature.js';
import { SMALL } from '../limits.js';
import { Caption, MAX_CAPTION } from './captions.js';

const LINE = { ...SMALL, bytes: 4_000, text: 4_000 };
const text = z.string().max(4 * MAX_CAPTION);

/** Typed captions: somebody whom the tutor names types what is said, and everyone can read it. */
export const captions = liveFeature({
  clientMessages: {
    /** Names who types them; `null` for nobody: there are none from then on. */
    'captions.writer': { from: 'helper', limits: SMALL, fields: { who: Id.nullable() } },
    /** A line that is done; one with the id of an earlier line of theirs corrects that. */
    caption: { from: 'student', limits: LINE, fields: { id: Id, text } },
    /** The line as far as it is typed; a few a second, may be lost. */
    'caption.typing': { from: 'student', limits: LINE, fields: { text } },
  },
  serverMessages: {
    /** Who types them, and the last lines, the earlier first: to who comes, and whenever somebody else is named. */
    captions: { writer: Id.nullable(), lines: z.array(Caption) },
    caption: { line: Caption },
    'caption.typing': { text: z.string() },
  },
  record: {
    captions: z.array(z.object({ by: Id, text: z.string(), from: z.number(), at: z.number() })),
  },
  said: ['captions'],
});
