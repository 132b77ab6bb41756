import type { IceServer, Id } from '@cuaderno/core';
import { createHmac } from 'node:crypto';

/** How long a window may use a server that passes on, in seconds: longer than any lesson. */
const VALID = 12 * 3600;

/** Servers by which windows find a way to one another, as the settings name them. */
export interface IceSettings {
  /** As `stun:stun.example.org:3478`. */
  readonly stun: readonly string[];
  /** As `turn:turn.example.org:3478?transport=udp`; with what is shared with it, in `turnSecret`. */
  readonly turn: readonly string[];
  readonly turnSecret: string | null;
}

/** What windows are told of them. */
export class IceServers {
  constructor(
    private readonly settings: IceSettings,
    private readonly now: () => number = Date.now,
  ) {}

  /**
   * A name and a password of their own, good for some hours: those of draft-uberti-behave-turn-rest-00, section 2.2, as coturn
   * takes them with `use-auth-secret`. Whoever copies them has nothing that lasts.
   */
  for(person: Id): IceServer[] {
    const { stun, turn, turnSecret } = this.settings;
    const servers: IceServer[] = stun.length > 0 ? [{ urls: [...stun] }] : [];
    if (turn.length === 0 || turnSecret === null) return servers;
    const username = `${Math.floor(this.now() / 1000) + VALID}:${person}`;
    const credential = createHmac('sha1', turnSecret).update(username).digest('base64');
    return [...servers, { urls: [...turn], username, credential }];
  }
}
