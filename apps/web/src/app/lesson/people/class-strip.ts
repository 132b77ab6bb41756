import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { nameOf } from '@cuaderno/core/people';
import type { Person } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import { Hand, Presentation } from 'lucide';
import { Icon } from '../../ui/icons/icon';
import { Tip } from '../../ui/tip/tip';
import type { Voice } from '../../live/features/media/media-state';
import { VoiceSign } from '../../live/features/media/voice-sign';
import { ROLE_WORDS } from '../../live/role-words';
import { TRUST_STEPS } from './trust-steps';

/** Who is here and who holds a pen, as everyone sees it. */
@Component({
  selector: 'cua-class-strip',
  imports: [Icon, Tip, VoiceSign],
  template: `
    <ul aria-label="Who is here">
      @for (one of shown(); track one.id) {
        <li [class.writes]="one.writes" [class.gone]="!one.here" [cuaTip]="one.says">
          @if (one.icon) {
            <cua-icon [of]="one.icon" [size]="16" />
          }
          <bdi>{{ one.label }}</bdi>
          <cua-voice-sign [voice]="one.voice" [speaks]="speaking().has(one.id)" />
          @if (one.is) {
            <span class="is" aria-hidden="true">{{ one.is }}</span>
          }
          @if (one.leads) {
            <cua-icon [of]="icons.Presentation" [size]="15" />
          }
          @if (one.hand) {
            <span class="hand"><cua-icon [of]="icons.Hand" [size]="15" />{{ one.hand }}</span>
          }
          <span class="unseen">{{ one.says }}</span>
        </li>
      }
    </ul>
  `,
  styles: `
    ul {
      display: flex;
      overflow-x: auto;
      scrollbar-width: none;
      gap: var(--space-2);
      margin: 0;
      padding: 0;
      list-style: none;
    }
    li {
      display: flex;
      flex: none;
      gap: var(--space-2);
      align-items: center;
      max-width: 11rem;
      padding: var(--space-1) var(--space-5) var(--space-1) var(--space-3);
      border: 1px solid var(--line);
      border-radius: 99px;
      color: var(--ink-soft);
      font-size: var(--size-s);
      white-space: nowrap;
    }
    bdi {
      overflow: hidden;
      text-overflow: ellipsis;
    }
    .writes {
      border-color: var(--moss);
      background: var(--moss-soft);
      color: var(--moss);
      font-weight: 600;
    }
    .is {
      color: var(--ink);
      font-weight: 600;
    }
    .gone {
      border-style: dashed;
      background: none;
      color: var(--ink-soft);
      font-style: italic;
      font-weight: 400;
    }
    .hand {
      display: flex;
      align-items: center;
      color: var(--amber);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ClassStrip {
  readonly people = input.required<readonly Person[]>();
  readonly me = input<Id | null>(null);
  /** Whether one’s own name is among them. */
  readonly own = input(true);
  readonly lead = input<Id | null>(null);
  /** Whose microphone is on or muted, and who speaks this moment. */
  readonly voices = input<ReadonlyMap<Id, Voice>>(new Map());
  readonly speaking = input<ReadonlySet<Id>>(new Set());

  protected readonly icons = { Hand, Presentation };
  protected readonly shown = computed(() =>
    this.people()
      .filter(({ id }) => this.own() || id !== this.me())
      .map((person) => {
        const step = TRUST_STEPS.find(({ trust }) => trust === person.trust)!;
        const { role } = person;
        const isStudent = role === 'student';
        const leads = person.id === this.lead() || (role === 'tutor' && this.lead() === null);
        return {
          id: person.id,
          label: person.id === this.me() ? 'You' : nameOf(person),
          icon: isStudent || role === 'watcher' ? step.icon : null,
          is: role === 'helper' || role === 'watcher' ? ROLE_WORDS[role] : '',
          writes: person.trust !== 'view' && isStudent,
          here: person.here,
          hand: person.hand,
          leads,
          voice: this.voices().get(person.id),
          says: [
            role === 'tutor' ? 'your tutor' : ROLE_WORDS[role] || step.label.toLowerCase(),
            leads ? 'leads' : '',
            person.hand ? 'hand up' : '',
            person.here ? '' : 'away',
          ]
            .filter(Boolean)
            .join(', '),
        };
      }),
  );
}
