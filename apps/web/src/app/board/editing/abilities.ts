import { computed } from '@angular/core';
import { teaches, whyNot } from '@cuaderno/core/permissions';
import type { Item } from '@cuaderno/core/board';
import type { Id } from '@cuaderno/core/id';
import type { BoardSession } from '../../live/board-session';

/** What the person at this window may do, as far as it shows: the server says it once more for each item. */
export class Abilities {
  /** @param page in view */
  constructor(
    private readonly session: () => BoardSession,
    private readonly page: () => Id | null,
  ) {}

  private readonly teaches = computed(() => teaches(this.session().role()));
  readonly leads = computed(() => {
    const { features, me } = this.session();
    const lead = features.pens.lead();
    return lead === null ? this.session().role() === 'tutor' : lead === me();
  });
  /** What applies on the page in view. */
  readonly here = computed(() => this.session().applies()(this.page()));
  readonly writeOn = computed(() => {
    const { applies, keeps } = this.session();
    const [on, rests] = [applies(), !keeps()];
    return (page: Id): boolean => !rests && on(page).trust !== 'view';
  });
  readonly write = computed(() => this.session().keeps() && this.here().trust !== 'view');
  readonly erase = computed(() => {
    const [teaches, me] = [this.teaches(), this.session().me()];
    return (item: Item): boolean => teaches || item.by === me;
  });
  /** What can be chosen to change it: one's own writing; with hands on, also what lies loose. */
  readonly change = computed(() => {
    const [teaches, me, { trust }] = [this.teaches(), this.session().me(), this.here()];
    return (item: Item): boolean => {
      if (teaches) return true;
      if (item.kind === 'ink' || item.layer === 'ink') return item.by === me;
      return trust === 'hands' && !item.fixed;
    };
  });
  readonly remove = computed(() => {
    const [teaches, me] = [this.teaches(), this.session().me()];
    return (items: readonly Item[]): boolean =>
      teaches ||
      items.every((item) => item.by === me && (item.kind === 'ink' || item.layer === 'ink'));
  });
  readonly pointOn = computed(() => {
    const [leads, teaches, writes] = [this.leads(), this.teaches(), this.writeOn()];
    const lesson = this.session().lesson() !== null;
    return (page: Id): boolean => lesson && (leads || teaches || writes(page));
  });
  readonly light = computed(
    () => this.session().lesson() !== null && (this.leads() || this.teaches()),
  );
  /** Why sounds and films of a page can't be run. */
  readonly notRun = computed(() => {
    const applies = this.session().applies();
    return (page: Id): string | null => whyNot('runMedia', applies(page));
  });
  /** The page of the one who leads, where this person doesn't turn pages alone. */
  readonly only = computed<Id | null>(() => {
    const session = this.session();
    if (this.teaches() || this.leads() || this.here().turn || !session.lesson()) return null;
    const lead = session
      .people()
      .find(({ id, role }) =>
        session.features.pens.lead() ? id === session.features.pens.lead() : role === 'tutor',
      );
    // Where that is on another board, this one follows there: see the screen.
    const page = (lead?.board === session.id() ? lead?.page : null) ?? this.page();
    return page && session.board().pages.has(page) ? page : null;
  });
}
