import type { Stored, UpgradeStep } from './step.js';
import { toVersion2 } from './to-version-2.js';

/*
 * What is stored (logs, board files, items in PDFs, what a browser keeps) is never rewritten. It says in which version of
 * our words it was written, and is brought up to the present ones where it is read: here, and nowhere else.
 */

/** The step at place `n` leads from version `n + 1` to `n + 2`. */
const STEPS: readonly UpgradeStep[] = [toVersion2];

/** The version in which everything is stored now. */
export const STORED_VERSION = STEPS.length + 1;

/** Thrown for something of a version that this build doesn't know: a later build has stored it. */
export class StoredVersionError extends Error {
  override readonly name = 'StoredVersionError';
  constructor(readonly version: unknown) {
    super(`stored in version ${String(version)}; known here are 1 to ${STORED_VERSION}`);
  }
}

/**
 * What was stored, in the words of now; to be checked as if it came anew. Throws `StoredVersionError`.
 * @param version in which it was stored
 */
export function upgradeStored(kind: keyof Stored, value: unknown, version: unknown): unknown {
  if (!isKnownVersion(version)) throw new StoredVersionError(version);
  return STEPS.slice(version - 1).reduce((now, step) => step[kind](now), value);
}

export function isKnownVersion(version: unknown): version is number {
  return Number.isInteger(version) && Number(version) >= 1 && Number(version) <= STORED_VERSION;
}
