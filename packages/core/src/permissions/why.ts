import type { EffectivePermissions, Level, Permit } from './rules.js';

const PENS: Record<Level, string> = {
  page: 'There is no writing on this page just now.',
  board: 'There is no writing on this board just now.',
  person: 'You are watching just now.',
  course: 'You are watching just now.',
};

const HANDS: Record<Level, string> = {
  page: 'What lies on this page stays where it is.',
  board: 'What lies on this board stays where it is.',
  person: 'You have a pen; what lies on the page stays where it is.',
  course: 'You have a pen; what lies on the page stays where it is.',
};

const DONE: Record<Permit, string> = {
  turn: 'turns pages',
  addPages: 'adds pages',
  runMedia: 'runs sounds and films',
  chatAll: 'writes to all',
  chatTutor: 'writes to the tutor',
};

const WHERE: Record<Level, string> = {
  page: 'on this page',
  board: 'on this board',
  person: 'for you',
  course: 'in this class',
};

/** Why somebody watches, or has no hands on, in a sentence for them; `null` where they have all. */
export function whyTrust({ trust, why }: EffectivePermissions): string | null {
  if (trust === 'hands') return null;
  return (trust === 'view' ? PENS : HANDS)[why.trust];
}

/** Why something else can't be done just now, in a sentence for them; `null` where it can. */
export function whyNot(permit: Permit, applies: EffectivePermissions): string | null {
  if (applies[permit]) return null;
  const level = applies.why[permit];
  return level === 'person'
    ? `Just now, only your tutor ${DONE[permit]} ${WHERE[level]}.`
    : `Only the tutor ${DONE[permit]} ${WHERE[level]}.`;
}
