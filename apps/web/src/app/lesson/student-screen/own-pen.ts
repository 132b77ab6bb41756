import { whyTrust } from '@cuaderno/core/permissions';
import type { Id } from '@cuaderno/core/id';
import { computed } from '@angular/core';
import type { BoardSession } from '../../live/board-session';
import { TRUST_STEPS } from '../people/trust-steps';

const WORDS = { view: 'Watching', write: 'You have a pen', hands: 'Hands on' };

/** What a student may do on the page in view, in the words of their screen, and whom they follow. */
export class OwnPen {
  readonly abilities = computed(() => this.session()?.applies()(this.page()) ?? null);
  /** What may be done with a pen, and why it is no more. */
  readonly pen = computed(() => {
    const applies = this.abilities();
    if (!applies) return null;
    if (this.session()?.role() === 'watcher')
      return {
        has: false,
        icon: TRUST_STEPS[0]!.icon,
        words: 'You watch',
        why: 'You see what students see. Everybody knows that you are here.',
      };
    const step = TRUST_STEPS.find(({ trust }) => trust === applies.trust)!;
    const place = applies.why.trust === 'page' || applies.why.trust === 'board';
    return {
      has: applies.trust !== 'view',
      icon: step.icon,
      words: place && applies.trust === 'view' ? 'No writing on this page' : WORDS[applies.trust],
      why: whyTrust(applies) ?? 'You may write, and move what lies loose on the page.',
    };
  });
  readonly leads = computed(() => {
    const session = this.session();
    const lead = session?.features.pens.lead() ?? null;
    return lead !== null && lead === session?.me();
  });
  /** Whom one follows in step. */
  readonly leader = computed(() => {
    const session = this.session();
    const lead = session?.people().find(({ id }) => id === session.features.pens.lead());
    return lead?.name ?? 'your tutor';
  });

  /** @param page the page in view */
  constructor(
    private readonly session: () => BoardSession | null,
    private readonly page: () => Id | null,
  ) {}
}
