import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { nameOf } from '@cuaderno/core/people';
import type { Id } from '@cuaderno/core/id';
import { Button } from '../../../ui/button/button';
import type { LessonWith } from '../feature';
import type { MediaState } from './media-state';
import type { SoundDevice } from './sound-choice';
import { MICROPHONE_FAULTS } from './microphone-input';

/** What there is to say of voices: below the page, until it is answered. */
@Component({
  selector: 'cua-voice-notice',
  imports: [Button],
  template: `
    @if (state().player.isBlocked()) {
      <p role="status">
        The browser waits for a touch before it plays the others’ voices.
        <button type="button" cuaButton="strong" (click)="listen()">Hear them</button>
      </p>
    }
    @if (askedBy(); as name) {
      <p role="status">
        <span
          ><bdi>{{ name }}</bdi> would like to hear you.</span
        >
        <button type="button" cuaButton="strong" (click)="toggle()">Switch on</button>
        <button type="button" cuaButton (click)="state().askedBy.set(null)">Not now</button>
      </p>
    }
    @if (mutedBy(); as name) {
      <p role="status">
        <span
          ><bdi>{{ name }}</bdi> has muted your microphone.</span
        >
        <button type="button" cuaButton (click)="state().mutedBy.set(null)">All right</button>
      </p>
    }
    @if (microphone().plugged(); as one) {
      <p role="status">
        <span
          >“<bdi>{{ one.name }}</bdi
          >” was plugged in. You still speak into the other microphone.</span
        >
        <button type="button" cuaButton="strong" (click)="use(one)">Speak into it</button>
        <button type="button" cuaButton (click)="microphone().plugged.set(null)">Not now</button>
      </p>
    }
    @if (microphone().switched(); as now) {
      <p role="status">
        <span
          >{{ now.isGone ? 'Your microphone was unplugged.' : '' }} You speak into “<bdi>{{
            now.to
          }}</bdi
          >” now.</span
        >
        <button type="button" cuaButton (click)="microphone().switched.set(null)">All right</button>
      </p>
    }
    @if (fault(); as words) {
      <p role="alert">
        {{ words }}
        <button type="button" cuaButton (click)="state().fault.set(null)">
          {{ hears() ? 'Just listen' : 'All right' }}
        </button>
      </p>
    }
  `,
  styles: `
    :host {
      display: block;
    }
    p {
      display: flex;
      flex-wrap: wrap;
      gap: var(--space-2) var(--space-5);
      align-items: center;
      margin: 0;
      padding: var(--space-2) var(--space-5);
      border-top: 1px solid var(--line);
      background: var(--amber-soft);
      color: var(--ink);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class VoiceNotice {
  readonly session = input.required<LessonWith<{ readonly media: MediaState }>>();

  protected readonly state = computed(() => this.session().features.media);
  protected readonly microphone = computed(() => this.state().microphone);
  protected readonly askedBy = computed(() => this.named(this.state().askedBy()));
  protected readonly mutedBy = computed(() => this.named(this.state().mutedBy()));
  protected readonly fault = computed(() => {
    const fault = this.state().fault();
    return fault && MICROPHONE_FAULTS[fault];
  });

  protected readonly hears = computed(() => this.state().fault() !== 'unable');

  protected use(one: SoundDevice): void {
    void this.microphone().use(one);
  }

  protected toggle(): void {
    void this.state().toggle();
  }

  protected listen(): void {
    void this.state().player.startAll();
  }

  private named(person: Id | null): string | null {
    const found = this.session()
      .people()
      .find(({ id }) => id === person);
    return found ? nameOf(found) : null;
  }
}
