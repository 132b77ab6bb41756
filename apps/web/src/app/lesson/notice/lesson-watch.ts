import { listNames } from '@cuaderno/core/people';
import type { Arrival, ChatLine, Person } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import type { NoticeKind } from './notices';

/** So much of a message is told in a notice, in characters. */
const LONGEST = 60;

/** Tells of what has changed: who is at the door and who is here, hands, messages; once for each time. */
export class LessonWatch {
  private knocking = new Map<Id, number>();
  private here: ReadonlySet<Id> | null = null;
  private up: ReadonlySet<Id> = new Set();
  private heard: ReadonlySet<Id> | null = null;

  /**
   * @param tell what is new
   * @param settle called when nobody is at the door or has a hand up any more: what was said about it is past
   */
  constructor(
    private readonly tell: (kind: NoticeKind, words: string) => void,
    private readonly settle: (kind: NoticeKind) => void,
  ) {}

  arrivals(list: readonly Arrival[]): void {
    const now = new Map(
      list.filter(({ state }) => state === 'waiting').map(({ id, since }) => [id, since]),
    );
    // Anyone who only lost the line and is back isn't announced again; anyone who knocks once more is.
    const fresh = list.filter(({ id }) => now.has(id) && this.knocking.get(id) !== now.get(id));
    for (const [id, since] of now) this.knocking.set(id, since);
    if (now.size === 0) this.settle('door');
    if (fresh.length === 0) return;
    const names = listNames(fresh.map(({ name }) => name));
    this.tell('door', `${names} ${fresh.length === 1 ? 'is' : 'are'} at the door`);
  }

  people(list: readonly Person[]): void {
    // Also one who helps or watches is missed; the tutor's own going is no news.
    const others = list.filter(({ role }) => role !== 'tutor');
    const now = new Set(others.filter(({ here }) => here).map(({ id }) => id));
    const left = others.filter(({ id }) => this.here?.has(id) && !now.has(id));
    this.here = now;
    this.hands(others);
    if (left.length > 0)
      this.tell('left', `${listNames(left.map(({ name }) => name))} left, or lost the line`);
  }

  private hands(list: readonly Person[]): void {
    const up = list.filter(({ hand }) => hand !== null);
    const fresh = up.filter(({ id }) => !this.up.has(id));
    this.up = new Set(up.map(({ id }) => id));
    if (up.length === 0) this.settle('hand');
    if (fresh.length > 0)
      this.tell('hand', `${listNames(fresh.map(({ name }) => name))} raised a hand`);
  }

  /** @param me whose own messages are no news */
  chat(lines: readonly ChatLine[], people: readonly Person[], me: Id | null): void {
    const known = this.heard;
    this.heard = new Set(lines.map(({ id }) => id));
    // What was said before this window came is there to be read.
    if (!known) return;
    const fresh = lines.filter(({ id, by }) => !known.has(id) && by !== me);
    const last = fresh[fresh.length - 1];
    if (!last) return;
    const name = people.find(({ id }) => id === last.by)?.name ?? 'Someone';
    this.tell('message', `${name}: ${last.text.slice(0, LONGEST)}`);
  }

  /** The lesson is over: nobody is missed. */
  over(): void {
    this.knocking = new Map();
    this.here = null;
    this.up = new Set();
    this.heard = null;
  }
}
