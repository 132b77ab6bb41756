import { Operation } from '@cuaderno/core/ops';
import { STORED_VERSION, StoredVersionError, upgradeStored } from '@cuaderno/core/stored';
import { pack, unpack } from '@cuaderno/core/wire';
import type { Id } from '@cuaderno/core/id';
import { lasting } from '../browser/storage';
import { PENDING } from './kept-by-people';

function toText(bytes: Uint8Array): string {
  let text = '';
  for (const byte of bytes) text += String.fromCharCode(byte);
  return btoa(text);
}

function toBytes(text: string): Uint8Array {
  return Uint8Array.from(atob(text), (c) => c.charCodeAt(0));
}

/** Stands between the version of our words and what was written in it; without it that is the first. */
const MARK = ':';

/** An operation that an earlier build may have put there, in the words of now. Throws where it is none. */
function readStored(text: string): Operation {
  const at = text.indexOf(MARK);
  const version = at < 0 ? 1 : Number(text.slice(0, at));
  return Operation.parse(upgradeStored('operation', unpack(toBytes(text.slice(at + 1))), version));
}

/**
 * Operations that the server has not confirmed, kept on this machine so that a reload in the
 * middle of a break loses no line. Written the moment the pen lifts: there may be no later.
 */
export class PendingStore {
  private readonly prefix: string;
  private count = 0;

  constructor(
    board: Id,
    person: Id,
    private readonly storage: Storage = lasting,
  ) {
    this.prefix = `${PENDING}.${board}.${person}.`;
  }

  /** What an earlier visit could not get confirmed, in the order in which it was done. */
  load(): Operation[] {
    const keys: string[] = [];
    for (let i = 0; i < this.storage.length; i++) {
      const key = this.storage.key(i)!;
      if (key.startsWith(this.prefix)) keys.push(key);
    }
    keys.sort();
    this.count = Number(keys.at(-1)?.slice(this.prefix.length).split('.')[0] ?? 0);
    return keys.flatMap((key) => {
      try {
        return [readStored(this.storage.getItem(key)!)];
      } catch (error) {
        // What a later build has put there is of use to that one, and waits for it.
        if (!(error instanceof StoredVersionError)) this.storage.removeItem(key);
        return [];
      }
    });
  }

  /** Returns false where the machine has no room; the operation is then kept in memory only. */
  add(op: Operation): boolean {
    const place = String(++this.count).padStart(9, '0');
    try {
      const text = `${STORED_VERSION}${MARK}${toText(pack(op))}`;
      this.storage.setItem(`${this.prefix}${place}.${op.id}`, text);
      return true;
    } catch {
      return false;
    }
  }

  remove(id: Id): void {
    for (let i = this.storage.length - 1; i >= 0; i--) {
      const key = this.storage.key(i)!;
      if (key.startsWith(this.prefix) && key.endsWith(`.${id}`)) this.storage.removeItem(key);
    }
  }
}
