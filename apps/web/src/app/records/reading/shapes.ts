import type { Answer } from '@cuaderno/contract/route';
import type { listHandouts } from '@cuaderno/contract/routes/handouts';

/** A folder whose files may be looked at. */
export type ReadFolder = Answer<typeof listHandouts>[number];
/** A file that may be looked at: nothing by which it could be had. */
export type ReadSheet = ReadFolder['sheets'][number];
