import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { captionCues } from '@cuaderno/core/features';
import type { RecordTimeline } from '@cuaderno/core/features';
import { CaptionLines } from './caption-lines';
import type { ShownCaption } from './caption-lines';

/** What was said at the moment of a replay that is seen; nothing where there were no captions. */
@Component({
  selector: 'cua-replay-captions',
  imports: [CaptionLines],
  template: `
    @if (cues().length > 0) {
      <cua-caption-lines [lines]="now()" />
    }
  `,
  styles: `
    cua-caption-lines {
      padding: var(--space-3) var(--space-6);
      border-top: 1px solid var(--line);
      background: var(--panel);
      text-align: center;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ReplayCaptions {
  readonly timeline = input.required<RecordTimeline>();
  /** In ms since 1970. */
  readonly time = input.required<number>();

  protected readonly cues = computed(() => captionCues(this.timeline().captions));
  protected readonly now = computed((): readonly ShownCaption[] => {
    const time = this.time();
    return this.cues().flatMap(({ from, to, text }, i) =>
      from <= time && time < to ? [{ id: String(i), text }] : [],
    );
  });
}
