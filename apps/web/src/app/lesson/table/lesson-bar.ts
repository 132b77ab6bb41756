import { ChangeDetectionStrategy, Component, computed, input, model, output } from '@angular/core';
import { changePage } from '@cuaderno/core/ops';
import { nameOf } from '@cuaderno/core/people';
import type { Id } from '@cuaderno/core/id';
import type { Rules } from '@cuaderno/core/permissions';
import { Footprints, LocateFixed, Lock, LockOpen, Presentation } from 'lucide';
import { Icon } from '../../ui/icons/icon';
import type { PastWriter } from '../../board/work-area/class-marks';
import type { BoardSession } from '../../live/board-session';
import { FeatureViews } from '../../live/features/feature-views';
import { WhoseInk } from '../../board/whose-ink/whose-ink';
import { Tip } from '../../ui/tip/tip';

/** Below the page while a lesson is open: who follows whom, pens on this page, and whose ink it is. */
@Component({
  selector: 'cua-lesson-bar',
  imports: [FeatureViews, Icon, Tip, WhoseInk],
  template: `
    <cua-feature-views at="controls" [given]="{ session: session() }" />
    @if (leader(); as name) {
      <span class="leads" role="status">
        <cua-icon [of]="icons.Presentation" [size]="18" /> <bdi>{{ name }}</bdi> leads
      </span>
      <button type="button" class="step strong" (click)="session().features.pens.handLead(null)">
        Take the lead back
      </button>
    }
    <button
      type="button"
      role="switch"
      class="step"
      [attr.aria-checked]="session().features.inStep.on()"
      cuaTip="Students see the page, and the part of it, that the one who leads sees"
      (click)="session().features.inStep.setStep(!session().features.inStep.on())"
    >
      <cua-icon [of]="icons.Footprints" [size]="18" /> In step
    </button>
    @if (leader() && follows() && session().features.inStep.on()) {
      <button
        type="button"
        role="switch"
        class="step"
        [attr.aria-checked]="around()"
        cuaTip="Move about by yourself, while the others follow"
        (click)="around.set(!around())"
      >
        Look around
      </button>
    } @else if (!session().features.inStep.on()) {
      <button
        type="button"
        class="step"
        aria-label="Bring all here"
        cuaTip="Every student’s window shows once what yours shows"
        (click)="gather.emit()"
      >
        <cua-icon [of]="icons.LocateFixed" [size]="18" /><span class="word">Bring all here</span>
      </button>
    }
    <button
      type="button"
      role="switch"
      class="step"
      [attr.aria-checked]="frozen()"
      aria-label="Freeze this page"
      [cuaTip]="
        frozen()
          ? 'Nobody but you writes on this page; let students write here again'
          : 'No writing on this page, for everyone but you'
      "
      (click)="freeze()"
    >
      <cua-icon [of]="frozen() ? icons.Lock : icons.LockOpen" [size]="18" /><span class="word">{{
        frozen() ? 'Frozen' : 'Freeze'
      }}</span>
    </button>
    <cua-whose-ink [writers]="writers()" [(signed)]="signed" [(only)]="only" />
  `,
  styleUrl: './lesson-bar.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LessonBar {
  readonly session = input.required<BoardSession>();
  readonly page = input<Id | null>(null);
  /** Whether the tutor's window moves about by itself though a student leads. */
  readonly around = model(false);
  /** Whether this window is led by a student at all: that of one who helps never is. */
  readonly follows = input(true);
  readonly signed = model(false);
  readonly only = model<Id | null>(null);
  /** Who wrote on the board before. */
  readonly earlier = input<readonly PastWriter[]>([]);
  readonly gather = output();

  protected readonly icons = { Footprints, LocateFixed, Lock, LockOpen, Presentation };
  protected readonly leader = computed(() => {
    const { features, people } = this.session();
    const lead = people().find(({ id }) => id === features.pens.lead());
    return lead ? nameOf(lead) : null;
  });
  /** Who is in the lesson, and then who wrote on the board before. */
  protected readonly writers = computed(() => {
    const here = this.session().people();
    const known = new Set(here.map(({ id }) => id));
    return [...here, ...this.earlier().filter(({ id }) => !known.has(id))].map((person) => ({
      id: person.id,
      label: nameOf(person),
    }));
  });
  private readonly rules = computed(
    () =>
      this.session()
        .board()
        .pages.get(this.page() ?? '')?.rules ?? {},
  );
  protected readonly frozen = computed(() => this.rules().trust === 'view');

  protected freeze(): void {
    const page = this.page();
    if (!page) return;
    const rules: Rules = { ...this.rules() };
    if (this.frozen()) delete rules.trust;
    else rules.trust = 'view';
    const change = changePage(this.session().board(), page, { rules });
    if (change) this.session().do(change);
  }
}
