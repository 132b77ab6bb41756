import {
  ChangeDetectionStrategy,
  Component,
  computed,
  input,
  linkedSignal,
  output,
} from '@angular/core';
import { CheckboxModule } from 'primeng/checkbox';
import { FormsModule } from '@angular/forms';
import { nameOf } from '@cuaderno/core/people';
import { AT_FIRST, resolvePermissions } from '@cuaderno/core/permissions';
import type { Person } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import type { Permit, Rules, RulesOver, Trust } from '@cuaderno/core/permissions';
import { LIST } from '../../ui/list/list';
import { SidePanel } from '../../ui/popup/side-panel';
import { TRUST_STEPS } from './trust-steps';

/** For whom or for what it is said what may be done. */
export type MayLevel = 'all' | 'course' | 'board' | 'page' | { readonly who: Id };

/** What is said there from now on. */
export type MayWord =
  | { readonly kind: 'trust'; readonly who: Id | 'all'; readonly trust: Trust }
  | { readonly kind: 'rules'; readonly who: Id | 'all'; readonly over: RulesOver }
  | { readonly kind: 'course' | 'board' | 'page'; readonly rules: Rules };

const PERMIT_WORDS: Readonly<Record<Permit, string>> = {
  turn: 'Turn pages alone',
  addPages: 'Add pages',
  runMedia: 'Run sounds and films',
  chatAll: 'Write to all in the chat',
  chatTutor: 'Write to the tutor in the chat',
};

/** What can be said of a place: a page has no chat. */
const OF: Readonly<Record<'board' | 'page', readonly Permit[]>> = {
  board: ['turn', 'addPages', 'runMedia', 'chatAll', 'chatTutor'],
  page: ['turn', 'runMedia'],
};

/** What students may do: for all in this lesson, for one, here, or whenever a lesson of the course begins. */
@Component({
  selector: 'cua-permissions-panel',
  imports: [CheckboxModule, FormsModule, LIST, SidePanel],
  templateUrl: './permissions-panel.html',
  styleUrl: './permissions-panel.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PermissionsPanel {
  readonly people = input.required<readonly Person[]>();
  readonly classRules = input.required<Rules>();
  readonly courseRules = input.required<Rules>();
  readonly boardRules = input.required<Rules>();
  readonly pageRules = input.required<Rules>();
  /** Number of the page in view. */
  readonly number = input.required<string>();
  /** What it is opened for. */
  readonly first = input<MayLevel>('all');
  /** Whether it is also said here what holds at the start of every lesson: that is the course's tutor's to say. */
  readonly ofCourse = input(true);
  readonly said = output<MayWord>();
  readonly closed = output();

  protected readonly chosen = linkedSignal(() => keyOf(this.first()));
  protected readonly steps = TRUST_STEPS;
  protected readonly levels = computed(() => [
    { key: 'all', label: 'Everyone in this lesson' },
    ...this.people()
      .filter(({ role }) => role === 'student')
      .map((person) => ({ key: person.id, label: nameOf(person) })),
    { key: 'page', label: `Page ${this.number()}` },
    { key: 'board', label: 'This whole board' },
    ...(this.ofCourse() ? [{ key: 'course', label: 'At the start of every lesson' }] : []),
  ]);
  /** Whether it can only take away, as places do. */
  protected readonly limits = computed(() => this.chosen() === 'page' || this.chosen() === 'board');
  private readonly person = computed(() => this.people().find(({ id }) => id === this.chosen()));
  private readonly rules = computed<Rules>(() => {
    switch (this.chosen()) {
      case 'all':
        return this.classRules();
      case 'course':
        return this.courseRules();
      case 'board':
        return this.boardRules();
      case 'page':
        return this.pageRules();
      default:
        return this.person()?.rules ?? {};
    }
  });
  /** Which step of trust is pressed; for a place the most that it has. */
  protected readonly trust = computed<Trust>(() => {
    const person = this.person();
    if (person) return person.trust;
    return this.rules().trust ?? (this.limits() ? 'hands' : AT_FIRST.trust);
  });
  protected readonly permits = computed(() => {
    const place = this.chosen();
    const which =
      place === 'board' || place === 'page' ? OF[place] : (Object.keys(PERMIT_WORDS) as Permit[]);
    const person = this.person();
    const applies = resolvePermissions({
      course: person ? this.classRules() : this.rules(),
      person: person ? this.rules() : {},
      board: {},
      page: {},
    });
    return which.map((permit) => ({
      permit,
      label: PERMIT_WORDS[permit],
      on: this.limits() ? this.rules()[permit] !== false : applies[permit],
      own: person ? this.rules()[permit] !== undefined : false,
    }));
  });
  protected readonly words = computed(() => {
    if (this.limits()) return 'Limits for this page: nobody may do more here.';
    if (this.chosen() === 'course') return 'Each lesson of this course begins so.';
    return this.person()
      ? 'This goes before what is set for everyone.'
      : 'Anyone who comes late gets this too.';
  });

  protected setTrust(trust: Trust): void {
    const place = this.place();
    if (place)
      this.tellPlace(place, { trust: this.limits() && trust === 'hands' ? undefined : trust });
    else this.said.emit({ kind: 'trust', who: this.who(), trust });
  }

  protected setPermit(permit: Permit, on: boolean): void {
    const place = this.place();
    if (place) return this.tellPlace(place, { [permit]: this.limits() && on ? undefined : on });
    // For one: what is as the class has it isn't said apart.
    const inClass = this.classRules()[permit] ?? AT_FIRST[permit];
    const value = this.person() && on === inClass ? null : on;
    this.said.emit({ kind: 'rules', who: this.who(), over: { [permit]: value } });
  }

  private place(): 'course' | 'board' | 'page' | null {
    const key = this.chosen();
    return key === 'course' || key === 'board' || key === 'page' ? key : null;
  }

  private who(): Id | 'all' {
    return this.person()?.id ?? 'all';
  }

  private tellPlace(
    kind: 'course' | 'board' | 'page',
    to: { [Key in keyof Rules]?: Rules[Key] | undefined },
  ): void {
    const rules = Object.fromEntries(
      Object.entries({ ...this.rules(), ...to }).filter(([, value]) => value !== undefined),
    ) as Rules;
    this.said.emit({ kind, rules });
  }
}

function keyOf(level: MayLevel): string {
  return typeof level === 'string' ? level : level.who;
}
