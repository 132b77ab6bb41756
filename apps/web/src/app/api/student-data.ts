/** A student in one lesson. */
export interface Seat {
  readonly person: string;
  readonly nth: number;
  readonly lesson: string;
  readonly course: string;
  readonly courseName: string;
  readonly openedAt: number;
  /** Whether the lesson goes on. */
  readonly open: boolean;
  /** Lines, texts and figures of theirs. */
  readonly ink: number;
  readonly messages: number;
}

/** What there is of students of a name. */
export interface StudentData {
  readonly seats: readonly Seat[];
  readonly links: number;
  readonly browsers: number;
  /** Texts of the tutor's in which they are named. */
  readonly named: number;
}

/** Where a name still stands after its student's data was deleted. */
export interface NameLeft {
  readonly where: 'page' | 'board' | 'record' | 'material';
  readonly title: string;
  readonly pages: readonly number[];
}

/** What was done. */
export interface Deletion {
  readonly id: string;
  readonly at: number;
  readonly report: {
    readonly alias: string;
    readonly courses: readonly string[];
    readonly lessons: number;
    readonly ink: 'keep' | 'take-out';
    readonly boards: number;
    readonly entries: number;
    readonly messages: number;
    readonly links: number;
    readonly letters: number;
    readonly guestLinks: number;
    readonly browsers: number;
    readonly renamed: number;
    readonly left: readonly NameLeft[];
  };
}
