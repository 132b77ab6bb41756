import { boardFromSnapshot } from '@cuaderno/core/board';
import { unpack } from '@cuaderno/core/wire';
import type { Board, BoardSnapshot } from '@cuaderno/core/board';
import type { RecordTimeline } from '@cuaderno/core/features';
import type { KeptEntry } from '@cuaderno/core/log';
import { Replay } from '@cuaderno/core/replay';
import { firstValueFrom } from 'rxjs';
import type { RecordsApi } from '../../api/records-api';

/** How a lesson came about. */
export interface LessonLog {
  /** As the server sent it (MessagePack). */
  readonly bytes: Uint8Array;
  /** The board when the lesson opened. */
  readonly before: Board;
  readonly replay: Replay;
  readonly timeline: RecordTimeline;
}

/** Fetches it: the log, and what happened beside the pages. Throws `ApiError`. */
export async function loadLessonLog(recordsApi: RecordsApi, lesson: string): Promise<LessonLog> {
  const [bytes, timeline] = await Promise.all([
    firstValueFrom(recordsApi.readRecordLog(lesson)),
    firstValueFrom(recordsApi.readTimeline(lesson)),
  ]);
  const { before, entries } = unpack(bytes) as { before: BoardSnapshot; entries: KeptEntry[] };
  const board = boardFromSnapshot(before);
  return { bytes, before: board, replay: new Replay(board, entries), timeline };
}
