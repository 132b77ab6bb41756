import { computed, signal } from '@angular/core';
import { AT_FIRST } from '@cuaderno/core/permissions';
import type { Person } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import type { Rules, RulesOver, Trust } from '@cuaderno/core/permissions';
import type { ServerHandlers, LessonFeature, Send, Stand } from '../feature';

/** Who holds a pen, what else they may do, who leads, and until when the lesson is planned. */
export class PensState implements LessonFeature<'pens'> {
  /** What holds for the class where nothing else is said for one of it. */
  readonly rules = signal<Rules>({});
  /** The pen of the class: who comes late has it, too. */
  readonly classTrust = computed<Trust>(() => this.rules().trust ?? AT_FIRST.trust);
  /** The student who leads; `null` while the tutor does. */
  readonly lead = signal<Id | null>(null);
  /** When the lesson is to end, in ms since 1970, if that was planned. */
  readonly endsAt = signal<number | null>(null);

  readonly handlers: ServerHandlers<'pens'> = {
    class: ({ rules, lead, endsAt }) => {
      this.rules.set(rules);
      this.lead.set(lead);
      this.endsAt.set(endsAt);
    },
  };

  constructor(
    private readonly send: Send,
    private readonly stand: Stand,
    private readonly people: () => readonly Person[],
  ) {}

  begin(): void {
    // It is told anew.
  }

  clear(): void {
    this.rules.set({});
    this.lead.set(null);
    this.endsAt.set(null);
  }

  leave(): void {
    // It has nothing of the machine.
  }

  setTrust(who: Id | 'all', trust: Trust): void {
    this.stand({ kind: 'trust', who, trust }, () => this.isTrust(who, trust));
  }

  /** Says what else someone may do, or the class; `null` unsays it. */
  setRules(who: Id | 'all', over: RulesOver): void {
    this.send({ kind: 'rules', who, over });
  }

  /** Hands over the lead; `null` takes it back. */
  handLead(who: Id | null): void {
    this.stand({ kind: 'lead', who }, () => this.lead() === who);
  }

  private isTrust(who: Id | 'all', trust: Trust): boolean {
    const meant = this.people().filter(
      ({ id, role }) => role === 'student' && (who === 'all' || id === who),
    );
    return (
      meant.every((person) => person.trust === trust) &&
      (who !== 'all' || this.classTrust() === trust)
    );
  }

  plan(endsAt: number | null): void {
    this.send({ kind: 'plan', endsAt });
  }
}
