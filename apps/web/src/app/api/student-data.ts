import type { DeletionReport } from '@cuaderno/contract/student-data';

export type { Deletion, Seat, StudentData } from '@cuaderno/contract/student-data';

/** Where a name still stands after its student's data was deleted. */
export type NameLeft = DeletionReport['left'][number];
