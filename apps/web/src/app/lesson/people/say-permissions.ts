import type { Id } from '@cuaderno/core/id';
import { changePage } from '@cuaderno/core/ops';
import type { BoardSession } from '../../live/board-session';
import type { MayWord } from './permissions-panel';

/**
 * Says in the lesson what may be done, where it is said. What holds at the start of every lesson is the course's, and isn't
 * said here.
 * @param page the page in view
 */
export function sayPermissions(session: BoardSession, word: MayWord, page: Id | null): void {
  const { pens } = session.features;
  switch (word.kind) {
    case 'trust':
      return pens.setTrust(word.who, word.trust);
    case 'rules':
      return pens.setRules(word.who, word.over);
    case 'board':
      return session.do({ kind: 'board.rules', to: word.rules, from: session.board().rules });
    case 'page': {
      const change = changePage(session.board(), page ?? '', { rules: word.rules });
      if (change) session.do(change);
      return;
    }
    case 'course':
      return;
  }
}
