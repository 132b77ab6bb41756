import * as z from 'zod';
import { Trust } from './actor.js';

/**
 * What a person may do besides writing: turn pages alone, add pages, run sounds and films, and write
 * in the chat to all or to the tutor alone.
 */
export const PERMITS = ['turn', 'addPages', 'runMedia', 'chatAll', 'chatTutor'] as const;
export type Permit = (typeof PERMITS)[number];

/** What is said for a course, a person, a board or a page; what isn't said is said elsewhere. */
export const Rules = z.strictObject({
  trust: Trust.optional(),
  turn: z.boolean().optional(),
  addPages: z.boolean().optional(),
  runMedia: z.boolean().optional(),
  chatAll: z.boolean().optional(),
  chatTutor: z.boolean().optional(),
});
export type Rules = z.infer<typeof Rules>;

/** What holds where nothing is said: one watches, and may do what disturbs nobody. */
export const AT_FIRST = {
  trust: 'view',
  turn: true,
  addPages: false,
  runMedia: true,
  chatAll: true,
  chatTutor: true,
} as const satisfies Required<Rules>;

/** Where it is said what someone may do. */
export type Level = 'course' | 'person' | 'board' | 'page';

export type Layers = { readonly [L in Level]: Rules };

/** What someone may do on a page, and for each of it where that was said. */
export type EffectivePermissions = Required<Rules> & {
  readonly why: Readonly<Record<keyof Rules, Level>>;
};

const STEPS: readonly Trust[] = Trust.options;

/** The lesser of two steps of trust. */
export function lesserTrust(a: Trust, b: Trust): Trust {
  return STEPS[Math.min(STEPS.indexOf(a), STEPS.indexOf(b))]!;
}

/**
 * What applies to a student. What is said for the person goes before what is said for the course. A board and
 * a page can only take away: so that a tutor who takes pens in has them all, whatever else was said.
 */
export function resolvePermissions({ course, person, board, page }: Layers): EffectivePermissions {
  const why: Record<string, Level> = {};
  const said = <Key extends keyof Rules>(key: Key): Required<Rules>[Key] => {
    why[key] = person[key] !== undefined ? 'person' : 'course';
    return (person[key] ?? course[key] ?? AT_FIRST[key]) as Required<Rules>[Key];
  };
  let trust = said('trust');
  const limits = [
    ['board', board],
    ['page', page],
  ] as const;
  for (const [level, rules] of limits) {
    const less = lesserTrust(trust, rules.trust ?? trust);
    if (less !== trust) why['trust'] = level;
    trust = less;
  }
  const permits = {} as Record<Permit, boolean>;
  for (const permit of PERMITS) {
    permits[permit] = said(permit);
    for (const [level, rules] of limits)
      if (permits[permit] && rules[permit] === false) {
        permits[permit] = false;
        why[permit] = level;
      }
  }
  return { trust, ...permits, why: why as Record<keyof Rules, Level> };
}

/** What holds for who teaches. */
export const ALL_APPLIES: EffectivePermissions = {
  trust: 'hands',
  turn: true,
  addPages: true,
  runMedia: true,
  chatAll: true,
  chatTutor: true,
  why: {
    trust: 'person',
    turn: 'person',
    addPages: 'person',
    runMedia: 'person',
    chatAll: 'person',
    chatTutor: 'person',
  },
};

/** What holds for who watches, whatever is said for the class: they look where they like, and disturb nobody. */
export const LOOKS_ONLY: EffectivePermissions = {
  ...ALL_APPLIES,
  trust: 'view',
  addPages: false,
  chatAll: false,
  chatTutor: false,
};

/** What is said over rules: `null` unsays what was said. Pens are given and taken by themselves. */
export const RulesOver = z.strictObject({
  turn: z.boolean().nullable().optional(),
  addPages: z.boolean().nullable().optional(),
  runMedia: z.boolean().nullable().optional(),
  chatAll: z.boolean().nullable().optional(),
  chatTutor: z.boolean().nullable().optional(),
});
export type RulesOver = z.infer<typeof RulesOver>;

/** These rules with others said over them. */
export function withRules(rules: Rules, over: RulesOver): Rules {
  const merged: Record<string, unknown> = { ...rules, ...over };
  return Object.fromEntries(
    Object.entries(merged).filter(([, value]) => value !== null && value !== undefined),
  ) as Rules;
}
