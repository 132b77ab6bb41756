import type { Id } from '@cuaderno/core/id';

/** Films that are being watched: their pictures are drawn where they lie, under the ink. */
export class Films {
  private readonly videos = new Map<Id, HTMLVideoElement>();
  private readonly waiting = new Set<() => void>();

  /** The film in place of the item's own picture, if it is being watched and has one to show. */
  get(item: Id): HTMLVideoElement | null {
    const video = this.videos.get(item);
    return video && video.readyState >= HTMLMediaElement.HAVE_CURRENT_DATA ? video : null;
  }

  get any(): boolean {
    return this.videos.size > 0;
  }

  show(item: Id, video: HTMLVideoElement): void {
    this.videos.set(item, video);
    const next = (): void => {
      if (this.videos.get(item) !== video) return;
      this.announce();
      video.requestVideoFrameCallback(next);
    };
    next();
  }

  stop(item: Id): void {
    if (this.videos.delete(item)) this.announce();
  }

  /** Calls `then` with every new picture, until the function that is returned is called. */
  watch(then: () => void): () => void {
    this.waiting.add(then);
    return () => this.waiting.delete(then);
  }

  private announce(): void {
    for (const then of this.waiting) then();
  }
}
