export type { RecordLink, SharedList, SharedRecord } from '@cuaderno/contract/record-links';

/** A letter in the mailbox that stands in for a mail server. */
export interface Letter {
  readonly id: string;
  readonly to: string;
  readonly subject: string;
  readonly body: string;
  readonly at: number;
}
