import { ChangeDetectionStrategy, Component, DestroyRef, inject, input } from '@angular/core';
import { Api } from '../api/api';
import { inThisZone } from '../time/say-time';
import { Making } from './making';

/** Saves everything of a course or a student as one archive: long work, which can be stopped. */
@Component({
  selector: 'cua-archive-button',
  template: `
    @if (making.part() !== null) {
      <span role="status">The archive is being made…</span>
      <button type="button" class="act quiet" (click)="making.stop()">Stop</button>
    } @else {
      <button type="button" class="act quiet" (click)="save()">{{ label() }}</button>
    }
    @if (making.trouble(); as problem) {
      <p class="trouble" role="alert">
        <strong>{{ problem.title }}</strong> {{ problem.detail }}
      </p>
    }
  `,
  styles: `
    :host {
      display: block;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ArchiveButton {
  readonly label = input.required<string>();
  /** Where it is made; what it is of may stand in its query. */
  readonly path = input.required<string>();
  private readonly api = inject(Api);
  protected readonly making = new Making();

  constructor() {
    inject(DestroyRef).onDestroy(() => this.making.stop());
  }

  protected async save(): Promise<void> {
    const path = this.path();
    const query = `${path}${path.includes('?') ? '&' : '?'}${inThisZone()}`;
    await this.making.save((signal) => this.api.download(query, signal));
  }
}
