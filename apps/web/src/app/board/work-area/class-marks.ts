import { computed } from '@angular/core';
import { colourOfPerson } from '@cuaderno/core/ink';
import { initialsOf, nameOf } from '@cuaderno/core/people';
import type { View } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import type { Named } from '@cuaderno/core/people';
import type { BoardSession } from '../../live/board-session';
import type { Author } from '@cuaderno/core/drawing';
import type { Abilities } from '../editing/abilities';
import type { StageMarks } from '../stage/stage-marks';

/** Somebody who wrote on a board, in whatever lesson. */
export interface PastWriter extends Named {
  readonly id: Id;
}

/** How the people of a lesson are shown on the board: their colours and initials, and what they see. */
export class ClassMarks implements StageMarks {
  constructor(
    private readonly session: () => BoardSession,
    private readonly abilities: Abilities,
    /** Who wrote on the board before, in other lessons. */
    private readonly earlier: () => readonly PastWriter[],
    /** Whether every line says whose it is. */
    readonly signed: () => boolean,
  ) {}

  readonly shown = computed(() => {
    const session = this.session();
    return session.features.pointing.shownOn(session.board().id);
  });

  /** In order of arrival, so that a colour stays whose it is; then who wrote before. */
  readonly authors = computed<ReadonlyMap<Id, Author>>(() => {
    const here = this.session().people();
    const known = new Set(here.map(({ id }) => id));
    const people = [...here, ...this.earlier().filter(({ id }) => !known.has(id))];
    return new Map(
      people.map((person, i) => [
        person.id,
        { name: nameOf(person), initials: initialsOf(person), colour: colourOfPerson(i) },
      ]),
    );
  });
  readonly authorOf = computed(() => {
    const [authors, me] = [this.authors(), this.session().me()];
    return (id: Id): Author | null => authors.get(id === 'own' ? (me ?? '') : id) ?? null;
  });
  /** What the smallest window of those who follow shows; `null` where this one isn't followed. */
  readonly frame = computed<{ view: View; label: string } | null>(() => {
    const session = this.session();
    if (!session.features.inStep.on() || !this.abilities.leads()) return null;
    const seen = session
      .people()
      .filter(
        ({ here, role, id, board }) =>
          here && role === 'student' && id !== session.me() && board === session.id(),
      )
      .flatMap((person) => (person.view && person.size ? [{ person, size: person.size }] : []))
      .sort((a, b) => a.size.width * a.size.height - b.size.width * b.size.height);
    const [smallest] = seen;
    return smallest
      ? { view: smallest.person.view!, label: `${nameOf(smallest.person)} sees` }
      : null;
  });
}
