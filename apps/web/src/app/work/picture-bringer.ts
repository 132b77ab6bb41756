import { signal } from '@angular/core';
import { keysBetween, materialOn, MIN_FRAME, topOrder } from '@cuaderno/core';
import type { Change, Frame, Id, Item, PageSize, PictureSpec, Point } from '@cuaderno/core';
import { troubleOf } from '../api/api';
import type { Api, Trouble } from '../api/api';
import type { BoardSession } from '../live/board-session';

/** A picture as the server keeps it; in pixels. */
interface Kept {
  readonly file: string;
  readonly width: number;
  readonly height: number;
}

/** How much of the page's width and height a picture covers at most when it comes. */
const COVER = 0.6;
/** Space between pictures that come together, in points. */
const BETWEEN = 12;

/** Brings pictures from this machine onto a page. */
export class PictureBringer {
  /** How far those on their way are, from 0 to 1; `null` where there are none. */
  readonly part = signal<number | null>(null);
  readonly trouble = signal<Trouble | null>(null);
  private abort: AbortController | null = null;

  constructor(
    private readonly api: Api,
    private readonly session: () => BoardSession,
    private readonly chosen: (page: Id, ids: readonly Id[]) => void,
  ) {}

  /** Several at once are laid in rows around the place. */
  async bring(files: readonly File[], page: Id, at: Point): Promise<void> {
    if (files.length === 0) return;
    this.trouble.set(null);
    const abort = (this.abort = new AbortController());
    const board = this.session().board().id;
    const parts = files.map(() => 0);
    this.part.set(0);
    const kept = await Promise.all(
      files.map(async (file, i) => {
        try {
          const name = encodeURIComponent(file.name.slice(0, 200));
          return await this.api.upload<Kept>(
            `/boards/${board}/pictures?name=${name}`,
            file,
            (part) => {
              parts[i] = part;
              this.part.set(parts.reduce((a, b) => a + b) / parts.length);
            },
            abort.signal,
          );
        } catch (error) {
          if (!abort.signal.aborted) this.trouble.set(troubleOf(error));
          return null;
        }
      }),
    );
    this.part.set(null);
    this.lay(
      kept.filter((one) => one !== null),
      files.map(({ name }) => name),
      page,
      at,
    );
  }

  /** Says that files of these items may be seen on this board; returns whether that was done. */
  async share(items: readonly Item[]): Promise<boolean> {
    const files = [
      ...new Set(items.flatMap((item) => (item.kind === 'picture' ? [item.file] : []))),
    ];
    if (files.length === 0) return true;
    try {
      await this.api.post(`/boards/${this.session().board().id}/files`, { files });
      return true;
    } catch (error) {
      this.trouble.set(troubleOf(error));
      return false;
    }
  }

  stop(): void {
    this.abort?.abort();
  }

  private lay(pictures: readonly Kept[], names: readonly string[], page: Id, at: Point): void {
    const here = this.session().board().pages.get(page);
    if (!here || pictures.length === 0) return;
    const frames = inRows(pictures, here, at);
    const orders = [
      topOrder(here),
      ...keysBetween(topOrder(here), null, Math.max(0, pictures.length - 1)),
    ];
    const changes = pictures.map(({ file }, i): Change => {
      const item: PictureSpec = {
        kind: 'picture',
        layer: 'material',
        order: orders[i]!,
        frame: frames[i]!,
        file,
        alt: (names[i] ?? '').replace(/\.[^.]*$/, ''),
      };
      return { kind: 'item.add', page, item };
    });
    this.session().doAll(changes);
    const after = this.session().board().pages.get(page);
    if (after) {
      const made = materialOn(after).slice(-pictures.length);
      this.chosen(
        page,
        made.map(({ id }) => id),
      );
    }
  }
}

/**
 * Frames for pictures of these pixels: one alone in its true size at 96 dots an inch, several in
 * rows of one height; none larger than the page has room for, nor off it.
 */
export function inRows(
  pictures: readonly { width: number; height: number }[],
  page: PageSize,
  at: Point,
): Frame[] {
  const columns = Math.ceil(Math.sqrt(pictures.length));
  const rows = Math.ceil(pictures.length / columns);
  const room = {
    width: (page.width * (columns > 1 ? 0.86 : COVER) - BETWEEN * (columns - 1)) / columns,
    height: (page.height * (rows > 1 ? 0.86 : COVER) - BETWEEN * (rows - 1)) / rows,
  };
  const sizes = pictures.map(({ width, height }) => {
    const [w, h] = [width * 0.75, height * 0.75];
    const scale = Math.min(1, room.width / w, room.height / h);
    return { width: Math.max(MIN_FRAME, w * scale), height: Math.max(MIN_FRAME, h * scale) };
  });
  const cell = {
    width: Math.max(...sizes.map(({ width }) => width)),
    height: Math.max(...sizes.map(({ height }) => height)),
  };
  const whole = {
    width: cell.width * columns + BETWEEN * (columns - 1),
    height: cell.height * rows + BETWEEN * (rows - 1),
  };
  const within = (middle: number, size: number, most: number): number =>
    Math.max(0, Math.min(most - size, middle - size / 2));
  const left = within(at.x, whole.width, page.width);
  const top = within(at.y, whole.height, page.height);
  return sizes.map(({ width, height }, i) => ({
    x: left + (i % columns) * (cell.width + BETWEEN) + (cell.width - width) / 2,
    y: top + Math.floor(i / columns) * (cell.height + BETWEEN) + (cell.height - height) / 2,
    width,
    height,
    turn: 0,
  }));
}
