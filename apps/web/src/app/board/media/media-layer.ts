import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { pagesInOrder } from '@cuaderno/core/board';
import { inSight } from '@cuaderno/core/edits';
import { playSign } from '@cuaderno/core/kinds';
import type { Board, Page, PlacedItem } from '@cuaderno/core/board';
import type { Id } from '@cuaderno/core/id';
import type { MediaSpec } from '@cuaderno/core/kinds';
import type { Films } from '../drawing/films';
import type { Stage } from '../stage/stage';
import { MediaPlayer } from './media-player';

type MediaItem = PlacedItem & MediaSpec;

/** Pages never change, so what is to be played on one is looked for once. */
const found = new WeakMap<Page, readonly MediaItem[]>();

function mediaOn(page: Page): readonly MediaItem[] {
  let items = found.get(page);
  if (!items) {
    items = inSight(page).filter((item): item is MediaItem => item.kind === 'media');
    found.set(page, items);
  }
  return items;
}

/** Smallest side of what is touched, in CSS px. */
const TOUCH = 44;

/** What plays the sounds and films of a board, each where it lies. */
@Component({
  selector: 'cua-media-layer',
  imports: [MediaPlayer],
  template: `
    @for (one of players(); track one.item.id) {
      <cua-media-player
        [item]="one.item"
        [refused]="one.refused"
        [films]="films()"
        [left]="one.left"
        [top]="one.top"
        [side]="one.side"
        [room]="one.room"
        [class.away]="one.away"
      />
    }
  `,
  styles: `
    :host {
      position: absolute;
      inset: 0;
      overflow: clip;
      pointer-events: none;
    }

    .away {
      visibility: hidden;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MediaLayer {
  readonly stage = input.required<Stage>();
  readonly board = input.required<Board>();
  readonly films = input.required<Films>();
  /** Why this person can't run what lies on a page; `null` where they can. */
  readonly whyNot = input<(page: Id) => string | null>(() => null);

  private readonly media = computed<readonly { page: Id; item: MediaItem }[]>(() =>
    pagesInOrder(this.board()).flatMap((page) =>
      mediaOn(page).map((item) => ({ page: page.id, item })),
    ),
  );

  /** Each with the place of its sign, in CSS px from the stage's corner. */
  protected readonly players = computed(() => {
    const media = this.media();
    // Most boards have none: nothing is reckoned for each step of a moving page, then.
    if (media.length === 0) return [];
    const stage = this.stage();
    stage.moved();
    const zoom = stage.view.zoom();
    const { width, height } = stage.size();
    return media.map(({ page, item }) => {
      const { at, radius } = playSign(item.frame);
      const { x, y } = stage.view.locate(page, at) ?? { x: -1e4, y: -1e4 };
      const side = Math.max(TOUCH, 2 * radius * zoom);
      // What is out of the window plays on, but can't be reached by keys either.
      const away = x < -side || y < -side || x > width + side || y > height + side;
      const room = (item.frame.width - 1.5 * radius) * zoom;
      const refused = this.whyNot()(page);
      return { item, refused, left: x, top: y, side, room, away };
    });
  });
}
