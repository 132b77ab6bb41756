import { createHash, randomBytes } from 'node:crypto';

/** A token that nobody guesses: 256 random bits, for a cookie or a link. */
export function newToken(): string {
  return randomBytes(32).toString('base64url');
}

/** What is kept of a token: who reads the database can do nothing with it. */
export function hashToken(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}
