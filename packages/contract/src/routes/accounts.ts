import { PersonName } from '@cuaderno/core/people';
import * as z from 'zod';
import { route } from '../route.js';
import { ZoneName } from '../time-zone.js';
import { ShortcutSettings } from '../shortcuts.js';

const Me = z.object({
  tutor: z
    .object({
      id: z.string(),
      name: z.string(),
      /** By whose clock times are said; `null` for that of each machine. */
      zone: ZoneName.nullable(),
    })
    .nullable(),
  /** Whether a tutor's account is there; if not, the first visit makes it. */
  setUp: z.boolean(),
  demo: z.boolean(),
});

const Email = z
  .string()
  .trim()
  .max(254)
  .regex(/^[^\s@]+@[^\s@]+$/, 'Please enter an e-mail address.');

const NewPassword = z
  .string()
  .min(10, 'Choose a password of at least 10 characters.')
  .max(200, 'That password is too long. Use at most 200 characters.');

const Token = z.string().min(1).max(100);

export const deleteAccount = route({
  method: 'POST',
  path: '/account/delete',
  who: 'tutor',
  tag: 'accounts',
  summary: 'Delete the account with everything in it: courses, boards, records, files',
  body: z.object({ password: z.string().max(200) }),
  answers: { 204: z.null() },
});

export const readMe = route({
  method: 'GET',
  path: '/me',
  who: 'anyone',
  tag: 'accounts',
  summary: 'Who is signed in',
  answers: { 200: Me },
});

export const setUp = route({
  method: 'POST',
  path: '/set-up',
  who: 'anyone',
  tag: 'accounts',
  summary: 'Make the tutor’s account, on the first visit',
  body: z.object({ name: PersonName, email: Email, password: NewPassword }),
  answers: { 204: z.null() },
});

export const signIn = route({
  method: 'POST',
  path: '/sign-in',
  who: 'anyone',
  tag: 'accounts',
  summary: 'Sign in',
  body: z.object({ email: z.string().max(254), password: z.string().max(200) }),
  answers: { 204: z.null() },
});

export const signOut = route({
  method: 'POST',
  path: '/sign-out',
  who: 'anyone',
  tag: 'accounts',
  summary: 'Sign out',
  answers: { 204: z.null() },
});

export const signOutEverywhere = route({
  method: 'POST',
  path: '/sign-out/everywhere',
  who: 'tutor',
  tag: 'accounts',
  summary: 'Sign out on every browser but this one',
  answers: { 204: z.null() },
});

export const readAccount = route({
  method: 'GET',
  path: '/account',
  who: 'tutor',
  tag: 'accounts',
  summary: 'The account of who is signed in',
  answers: {
    200: z.object({
      name: z.string(),
      email: z.string(),
      /** By whose clock times are said; `null` for that of each machine. */
      zone: ZoneName.nullable(),
    }),
  },
});

export const setZone = route({
  method: 'POST',
  path: '/account/zone',
  who: 'tutor',
  tag: 'accounts',
  summary: 'By the clock of which time zone times are said',
  body: z.object({ zone: ZoneName.nullable() }),
  answers: { 204: z.null() },
});

export const readShortcuts = route({
  method: 'GET',
  path: '/account/shortcuts',
  who: 'tutor',
  tag: 'accounts',
  summary: 'What was changed about the keys of a board',
  answers: { 200: ShortcutSettings },
});

export const setShortcuts = route({
  method: 'POST',
  path: '/account/shortcuts',
  who: 'tutor',
  tag: 'accounts',
  summary: 'Change keys of a board, or turn those off that are a letter alone',
  body: ShortcutSettings,
  answers: { 204: z.null() },
});

export const changePassword = route({
  method: 'POST',
  path: '/account/password',
  who: 'tutor',
  tag: 'accounts',
  summary: 'Change the password; other browsers are signed out',
  body: z.object({ old: z.string().max(200), password: NewPassword }),
  answers: { 204: z.null() },
});

export const requestPasswordReset = route({
  method: 'POST',
  path: '/password/forgotten',
  who: 'anyone',
  tag: 'accounts',
  summary: 'Send a letter with a link by which the password can be set anew',
  body: z.object({ email: Email }),
  answers: { 204: z.null() },
});

export const resetPassword = route({
  method: 'POST',
  path: '/password/reset',
  who: 'anyone',
  tag: 'accounts',
  summary: 'Set the password anew, by the link of a letter; every browser is signed out',
  body: z.object({ token: Token, password: NewPassword }),
  answers: { 204: z.null() },
});

export const createInvitation = route({
  method: 'POST',
  path: '/invitations',
  who: 'tutor',
  tag: 'accounts',
  summary: 'Invite another tutor: a link that is good once, for two weeks',
  answers: { 201: z.object({ token: z.string() }) },
});

export const readInvitation = route({
  method: 'POST',
  path: '/invitations/read',
  who: 'anyone',
  tag: 'accounts',
  summary: 'Who sent an invitation',
  body: z.object({ token: Token }),
  answers: { 200: z.object({ by: z.string() }) },
});

export const acceptInvitation = route({
  method: 'POST',
  path: '/invitations/accept',
  who: 'anyone',
  tag: 'accounts',
  summary: 'Make the account of a tutor who was invited',
  body: z.object({ token: Token, name: PersonName, email: Email, password: NewPassword }),
  answers: { 204: z.null() },
});

export const signInToDemo = route({
  method: 'POST',
  path: '/demo/sign-in',
  who: 'anyone',
  tag: 'accounts',
  summary: 'Sign in as the demo tutor',
  answers: { 204: z.null() },
});
