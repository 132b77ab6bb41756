/* What the server answers: the types of its contract, under the names by which the interface knows them. */
export type {
  BoardShape as BoardInfo,
  CourseShape as Course,
  GuestLinkShape as GuestLink,
  ImportedAnnotations,
  Slot,
} from '@cuaderno/contract/courses';
export type {
  Attendance,
  Attended as LessonAttended,
  Found,
  FoundRecord,
  IndexingState,
  Note,
  NoteKind,
  ListedRecord,
  RecordInfo,
  RecordOpened,
} from '@cuaderno/contract/records';
