import type { Answer } from '@cuaderno/contract/route';
import type { listLetters } from '@cuaderno/contract/routes/mailbox';

export type { RecordLink, SharedList, SharedRecord } from '@cuaderno/contract/record-links';

/** A letter in the mailbox that stands in for a mail server. */
export type Letter = Answer<typeof listLetters>['letters'][number];
