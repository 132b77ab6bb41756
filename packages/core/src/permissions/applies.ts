import { teaches } from './actor.js';
import type { Actor } from './actor.js';
import { ALL_APPLIES, LOOKS_ONLY, resolvePermissions } from './rules.js';
import type { EffectivePermissions, Rules } from './rules.js';

/** What has rules: a board, or a page of it. */
interface Ruled {
  readonly rules?: Rules | null | undefined;
}

const NONE: Rules = {};

/** What this person may do on a page of a board. */
export function appliesTo(
  actor: Actor,
  board: Ruled,
  page: Ruled | undefined,
): EffectivePermissions {
  if (teaches(actor.role)) return ALL_APPLIES;
  if (actor.role === 'watcher') return LOOKS_ONLY;
  return resolvePermissions({
    course: actor.course ?? NONE,
    person: { ...actor.person, trust: actor.trust },
    board: board.rules ?? NONE,
    page: page?.rules ?? NONE,
  });
}

/** Whether this person may write on that page. Who teaches always may. */
export function mayWriteOn(actor: Actor, board: Ruled, page: Ruled | undefined): boolean {
  return appliesTo(actor, board, page).trust !== 'view';
}
