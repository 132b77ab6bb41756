import type { PageSpec, Removal } from '../board/index.js';
import type { Id } from '../id/index.js';
import { teaches } from '../permissions/index.js';
import type { Role } from '../permissions/index.js';

/** Anyone who is sent a board or what happens on it. */
export interface Viewer {
  readonly id: Id;
  readonly role: Role;
}

/** Whom something is for: all who are in a lesson, those who teach in it alone, or some of its people. */
export type Audience = 'everyone' | 'tutors' | ReadonlySet<Id>;

/**
 * Whether somebody is sent what is for these. Nothing else decides it: not for boards, messages, pointers nor chat.
 * Who teaches sees all that happens in their lesson, no matter between whom.
 */
export function maySee(viewer: Viewer, audience: Audience): boolean {
  if (teaches(viewer.role) || audience === 'everyone') return true;
  return audience !== 'tutors' && audience.has(viewer.id);
}

/** Whom a page is for; one that isn't known (yet) is for nobody but those who teach. */
export function audienceOf(
  page: (Pick<PageSpec, 'hidden'> & { readonly removed?: Removal | null }) | undefined,
): Audience {
  return page && !page.hidden && !page.removed ? 'everyone' : 'tutors';
}
