import type { Signal } from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import { switchMap } from 'rxjs';
import type { BoardSession } from '../../live/board-session';
import type { Stage } from '../stage/stage';

/** Lines under way and pointers of others are drawn as they come. To be made where a component is. */
export function showOthers(session: Signal<BoardSession>, stage: Signal<Stage>): void {
  const sessions = toObservable(session);
  sessions
    .pipe(
      switchMap(({ liveInk }) => liveInk),
      takeUntilDestroyed(),
    )
    .subscribe((event) => stage().receiveInk(event));
  sessions
    .pipe(
      switchMap(({ features }) => features.pointing.pointed),
      takeUntilDestroyed(),
    )
    .subscribe(({ by, board, at }) => {
      // A dot that is on another board isn't on this one any more.
      stage().point(by, board === session().id() ? at : null);
    });
}
