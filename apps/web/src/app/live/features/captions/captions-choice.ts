import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { nameOf } from '@cuaderno/core/people';
import type { Id } from '@cuaderno/core/id';
import { LIST } from '../../../ui/list/list';
import type { LessonWith } from '../feature';
import type { CaptionsState } from './captions-state';

/** Who types the captions: the tutor names somebody, themselves or a student. */
@Component({
  selector: 'cua-captions-choice',
  imports: [FormsModule, LIST],
  template: `
    <span id="captions-writer">Captions typed by</span>
    <p-select
      ariaLabelledBy="captions-writer"
      appendTo="body"
      size="small"
      optionLabel="label"
      optionValue="who"
      [options]="choices()"
      [ngModel]="writer()"
      (ngModelChange)="session().features.captions.setWriter($event)"
    />
  `,
  styles: `
    :host {
      display: grid;
      gap: var(--space-1);
      padding: var(--space-2) var(--space-1);
      font-size: var(--size-m);
    }
    p-select {
      min-width: 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CaptionsChoice {
  readonly session = input.required<LessonWith<{ readonly captions: CaptionsState }>>();

  /** Anyone who was sent out types them no more. */
  protected readonly writer = computed(() => {
    const writer = this.session().features.captions.writer();
    return this.choices().some(({ who }) => who === writer) ? writer : null;
  });
  protected readonly choices = computed((): { who: Id | null; label: string }[] => {
    const me = this.session().me();
    const people = this.session().people();
    return [
      { who: null, label: 'Nobody' },
      { who: me, label: 'Me' },
      ...people
        .filter(({ id, role }) => (role === 'student' || role === 'helper') && id !== me)
        .map((person) => ({ who: person.id, label: nameOf(person) })),
    ];
  });
}
