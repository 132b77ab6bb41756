import type { Board } from '@cuaderno/core/board';
import type { View } from '@cuaderno/core/features';
import type { Point } from '@cuaderno/core/geometry';
import type { Id } from '@cuaderno/core/id';
import type { StageView } from './stage-view';

/**
 * What stories and benches read off a stage that is on screen, as `cuaStage` of its element: nothing in the application
 * does.
 */
export class StageProbe {
  constructor(
    /** The board as it is shown. */
    readonly board: () => Board,
    private readonly view: StageView,
    private readonly sharp: () => boolean,
    private readonly pointing: () => ReadonlyMap<Id, Point>,
  ) {}

  /** Whether all that is in view is drawn at the present zoom. */
  get isSharp(): boolean {
    return this.sharp();
  }

  /** Where each points. */
  get dots(): ReadonlyMap<Id, Point> {
    return this.pointing();
  }

  get part(): View | null {
    return this.view.part;
  }

  page(): Id | null {
    return this.view.page();
  }

  /** Where a place on a page is in the window, in CSS px from the stage's corner. */
  locate(page: Id, p: Point): Point | null {
    return this.view.locate(page, p);
  }

  goTo(page: Id): void {
    this.view.goTo(page);
  }
}
