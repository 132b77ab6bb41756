import type { GivenRole, Role } from '@cuaderno/core/permissions';

/** What everyone is in a lesson, in a word beside their name. */
export const ROLE_WORDS: Record<Role, string> = {
  tutor: 'tutor',
  helper: 'helps',
  student: '',
  watcher: 'watches',
};

/** What somebody can be let in as, where it is chosen. */
export const GIVEN_ROLES: readonly {
  readonly role: GivenRole;
  readonly label: string;
  /** What it means, for anyone who asks. */
  readonly means: string;
}[] = [
  { role: 'student', label: 'Student', means: 'takes part, with the pen that you give' },
  {
    role: 'helper',
    label: 'Helper',
    means: 'does all that you do in a lesson, but closes, shares and removes nothing',
  },
  { role: 'watcher', label: 'Watcher', means: 'sees what students see, and writes nothing' },
];
