import type { ElementRef } from '@angular/core';
import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  inject,
  input,
  viewChild,
} from '@angular/core';
import { CaptionSize } from './caption-size';

/** A line, and what it is told apart from others by. */
export interface ShownCaption {
  readonly id: string;
  readonly text: string;
}

/** Lines of captions, the last in sight; as large as the reader likes. Earlier ones can be looked back at. */
@Component({
  selector: 'cua-caption-lines',
  template: `
    <div
      #box
      class="lines"
      role="log"
      aria-label="Captions"
      tabindex="0"
      (scroll)="scrolled()"
      [style.font-size.px]="size.size()"
    >
      @for (line of lines(); track line.id) {
        <p dir="auto">{{ line.text }}</p>
      }
      @if (typing(); as text) {
        <p dir="auto" class="typing" aria-hidden="true">{{ text }} …</p>
      }
    </div>
  `,
  styles: `
    :host {
      display: block;
      flex: 1;
      min-width: 0;
    }
    .lines {
      overflow-y: auto;
      height: calc(2 * 1.3em);
      max-height: 34dvh;
      line-height: 1.3;
      overflow-wrap: anywhere;
    }
    p {
      margin: 0;
    }
    .typing {
      color: var(--ink-soft);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CaptionLines {
  readonly lines = input.required<readonly ShownCaption[]>();
  /** The line under way; empty for none. */
  readonly typing = input('');

  protected readonly size = inject(CaptionSize);
  private readonly box = viewChild.required<ElementRef<HTMLElement>>('box');
  /** Whether the reader is at the end, and hasn't gone back to read. */
  private follows = true;

  constructor() {
    afterRenderEffect(() => {
      this.lines();
      this.typing();
      this.size.size();
      const box = this.box().nativeElement;
      if (this.follows) box.scrollTop = box.scrollHeight;
    });
  }

  protected scrolled(): void {
    const { scrollHeight, scrollTop, clientHeight } = this.box().nativeElement;
    this.follows = scrollHeight - scrollTop - clientHeight < this.size.size();
  }
}
