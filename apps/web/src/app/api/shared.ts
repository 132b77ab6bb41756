/** What a link leads to: see the server's `record-links/shapes.ts`. Times in ms since 1970. */
export interface SharedList {
  readonly tutor: string;
  readonly course: string;
  readonly forWhom: string;
  readonly may: 'look' | 'download';
  readonly until: number;
  /** Whether it is for all records of the course. */
  readonly all: boolean;
  readonly records: readonly {
    readonly lesson: string;
    readonly title: string;
    readonly openedAt: number;
    readonly closedAt: number;
  }[];
}

/** A record as a link shows it; sizes of pages in points. */
export interface SharedRecord {
  readonly lesson: string;
  readonly title: string;
  readonly openedAt: number;
  readonly closedAt: number;
  readonly pages: readonly {
    readonly name: string;
    readonly width: number;
    readonly height: number;
  }[];
  readonly summary: string;
  readonly until: string;
  readonly people: readonly string[];
  /** How many were there whose names aren't shown. */
  readonly others: number;
  readonly chat: readonly { readonly by: string; readonly text: string; readonly at: number }[];
}

/** A link to records, as its tutor has it. */
export interface RecordLink {
  readonly id: string;
  readonly token: string;
  readonly course: string;
  readonly lesson: string | null;
  readonly forWhom: string;
  readonly email: string | null;
  readonly may: 'look' | 'download';
  readonly names: 'all' | 'own';
  readonly student: string | null;
  readonly until: number;
  readonly madeAt: number;
  readonly state: 'open' | 'over' | 'withdrawn';
  /** How often it was opened. */
  readonly count: number;
  /** The latest first. */
  readonly openings: readonly {
    readonly at: number;
    readonly what: 'opened' | 'record' | 'downloaded';
    readonly lesson: string | null;
    readonly device: 'phone' | 'tablet' | 'computer';
  }[];
}

/** A letter in the mailbox that stands in for a mail server. */
export interface Letter {
  readonly id: string;
  readonly to: string;
  readonly subject: string;
  readonly body: string;
  readonly at: number;
}
