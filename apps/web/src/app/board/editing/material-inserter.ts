import type { Answer } from '@cuaderno/contract/route';
import { uploadMaterial, useFiles } from '@cuaderno/contract/routes/boards';
import { readFile } from '@cuaderno/contract/routes/files';
import { insertAssetPages, useAsset } from '@cuaderno/contract/routes/materials';
import { materialOn, pagesInOrder } from '@cuaderno/core/board';
import { topOrder } from '@cuaderno/core/edits';
import { filesOf } from '@cuaderno/core/kinds';
import { MAX_PAGES_AT_ONCE } from '@cuaderno/core/ops';
import { keysBetween } from '@cuaderno/core/order';
import type { Item } from '@cuaderno/core/board';
import type { Frame, Point } from '@cuaderno/core/geometry';
import type { Id } from '@cuaderno/core/id';
import type { ItemSpec } from '@cuaderno/core/kinds';
import type { Change } from '@cuaderno/core/ops';
import { inject, signal } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import { Api, lastAnswer } from '../../api/api';
import { problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import type { BoardSession } from '../../live/board-session';
import type { PagesGo } from '../../materials/store/pages-go';
import { formatRemarks } from '../../materials/store/remarks';
import type { AssetInfo } from '../../materials/store/shapes';
import { peaksOf, posterOf } from '../../materials/media-preview/media-preview';
import { inRows } from './in-rows';
import { InkFileError, isInkFile, readInkFile } from './ink-file';

/** A file as the server keeps it; sizes in pixels. */
type KeptMaterial = Answer<typeof uploadMaterial>;

/** What is known of a file that came, and can be laid. */
interface Came {
  readonly name: string;
  readonly kept: KeptMaterial;
  readonly poster: string | null;
  readonly peaks: number[] | null;
}

/** Points a pixel: 96 pixels an inch, as CSS has it. */
const PIXEL = 0.75;
/** How a sound lies on a page when it comes, in points. */
const SOUND = { width: 240, height: 54 } as const;
/** Narrowest film when it comes: its controls have room on it. */
const FILM = 240;

/** Lines of ink that are laid in one step. */
const LINES = 1000;

/** Largest sound that is fetched to show how loud it is, in bytes. */
const MAX_HEARD = 30 * 1024 * 1024;

/** Files that can be chosen to be laid on a page. */
export const MATERIAL_TYPES =
  'image/png,image/jpeg,image/webp,image/avif,image/heic,.heic,image/gif,image/bmp,image/svg+xml,audio/*,video/mp4,video/webm,.mp3,.wav,.ogg,.m4a,.webm,.mp4,.inkml';

/** Brings pictures, sounds, films and ink from this machine onto a page. */
export class MaterialInserter {
  /** How far those on their way are, from 0 to 1; `null` where there are none. */
  readonly part = signal<number | null>(null);
  readonly problem = signal<ProblemDetails | null>(null);
  /** What is to be said of those that came. */
  readonly remark = signal<string | null>(null);
  /** What of the tutor's materials is coming, in words. */
  readonly coming = signal<string | null>(null);
  private abort: AbortController | null = null;

  private readonly api = inject(Api);

  /** To be made where services can be had. */
  constructor(
    private readonly session: () => BoardSession,
    private readonly chosen: (page: Id, ids: readonly Id[]) => void,
  ) {}

  /** Several at once are laid in rows around the place; ink lies where its file says. */
  async insert(all: readonly File[], page: Id, at: Point): Promise<void> {
    if (all.length === 0) return;
    this.problem.set(null);
    this.remark.set(null);
    const abort = (this.abort = new AbortController());
    for (const file of all.filter(isInkFile)) await this.layInk(file, page, abort.signal);
    const files = all.filter((file) => !isInkFile(file));
    if (files.length === 0) return;
    const parts = files.map(() => 0);
    this.part.set(0);
    const came = await Promise.all(
      files.map(async (file, i) => {
        try {
          return await this.upload(file, abort.signal, (part) => {
            parts[i] = part;
            this.part.set(parts.reduce((a, b) => a + b) / parts.length);
          });
        } catch (error) {
          if (!abort.signal.aborted) this.problem.set(problemOf(error));
          return null;
        }
      }),
    );
    this.part.set(null);
    this.remark.set(
      formatRemarks(
        came.flatMap((one) => (one ? [{ name: one.name, remarks: one.kept.remarks }] : [])),
      ),
    );
    this.lay(
      came.filter((one) => one !== null),
      page,
      at,
    );
  }

  /** Lays a file that is among materials already. */
  async layAsset(asset: AssetInfo, page: Id, at: Point): Promise<void> {
    const board = this.session().board().id;
    await this.fetching(`“${asset.name}” is coming`, async () => {
      const { still, ...kept } = await firstValueFrom(
        this.api.call(useAsset, { params: { asset: asset.id }, body: { board } }),
      );
      const { kind, file, width, height, length, name } = kept;
      if (kind !== 'picture' && kind !== 'sound' && kind !== 'film') return;
      const peaks =
        kind === 'sound' && kept.bytes <= MAX_HEARD
          ? await peaksOf(
              new Blob([
                (await firstValueFrom(this.api.call(readFile, { params: { hash: file } }))).slice(),
              ]),
              length,
            )
          : null;
      const came: Came = {
        name,
        kept: { kind, file, width, height, length, remarks: [] },
        poster: still,
        peaks,
      };
      this.lay([came], page, at);
    });
  }

  /** Brings the pages of a PDF that is among materials: by a page of the board, or at its end. */
  async insertPages(asset: AssetInfo, page: Id, where: PagesGo = 'after'): Promise<void> {
    const there = pagesInOrder(this.session().board()).map(({ id }) => id);
    const before = there[there.indexOf(page) - 1] ?? 'start';
    const after = where === 'end' ? null : where === 'before' ? before : page;
    const board = this.session().board().id;
    await this.fetching(`The pages of “${asset.name}” are coming`, async () => {
      const { pages } = await firstValueFrom(
        this.api.call(insertAssetPages, { params: { asset: asset.id }, body: { board, after } }),
      );
      const gesture = {};
      for (let i = 0; i < pages.length; i += MAX_PAGES_AT_ONCE)
        this.session().done(
          { kind: 'pages.restore', pages: pages.slice(i, i + MAX_PAGES_AT_ONCE) },
          gesture,
        );
    });
  }

  /** Says that files of these items may be seen on this board; returns whether that was done. */
  async share(items: readonly Item[]): Promise<boolean> {
    const files = [...new Set(items.flatMap((item) => (item.kind === 'ink' ? [] : filesOf(item))))];
    if (files.length === 0) return true;
    try {
      await firstValueFrom(
        this.api.call(useFiles, { params: { board: this.session().board().id }, body: { files } }),
      );
      return true;
    } catch (error) {
      this.problem.set(problemOf(error));
      return false;
    }
  }

  stop(): void {
    this.abort?.abort();
  }

  /** The lines of a file of ink, in one step of undo if there aren't too many. */
  private async layInk(file: File, page: Id, signal: AbortSignal): Promise<void> {
    const here = this.session().board().pages.get(page);
    if (!here) return;
    this.coming.set(`“${file.name}” is being read`);
    try {
      const ink = await readInkFile(file, here, signal);
      for (let i = 0; i < ink.length; i += LINES)
        this.session().doAll(
          ink.slice(i, i + LINES).map((line): Change => ({ kind: 'ink.add', page, ink: line })),
        );
    } catch (error) {
      if (error instanceof InkFileError) this.problem.set(error.problem);
      else if (!signal.aborted) this.problem.set(problemOf(error));
    } finally {
      this.coming.set(null);
    }
  }

  private async fetching(words: string, what: () => Promise<void>): Promise<void> {
    this.problem.set(null);
    this.coming.set(words);
    try {
      await what();
    } catch (error) {
      this.problem.set(problemOf(error));
    } finally {
      this.coming.set(null);
    }
  }

  private async upload(
    file: File,
    signal: AbortSignal,
    onProgress: (part: number) => void,
  ): Promise<Came> {
    const kept = await this.send(file, file.name, signal, onProgress);
    const { name } = file;
    if (kept.kind === 'sound')
      return { name, kept, poster: null, peaks: await peaksOf(file, kept.length) };
    const shot = kept.kind === 'film' ? await posterOf(file) : null;
    const poster = shot && (await this.send(shot, name, signal, () => undefined, true)).file;
    return { name, kept, poster, peaks: null };
  }

  private send(
    file: Blob,
    name: string,
    signal: AbortSignal,
    onProgress: (part: number) => void,
    still = false,
  ): Promise<KeptMaterial> {
    const board = this.session().board().id;
    const asked = {
      params: { board },
      query: { name: name.slice(0, 200), still: still ? '1' : '0' },
      body: file,
    } as const;
    return lastAnswer(this.api.send(uploadMaterial, asked), onProgress, signal);
  }

  private lay(items: readonly Came[], page: Id, at: Point): void {
    const here = this.session().board().pages.get(page);
    if (!here || items.length === 0) return;
    const frames = inRows(items.map(sizeOf), here, at);
    const first = topOrder(here);
    const orders = [first, ...keysBetween(first, null, items.length - 1)];
    const changes = items.map((came, i): Change => ({
      kind: 'item.add',
      page,
      item: itemOf(came, frames[i]!, orders[i]!),
    }));
    this.session().doAll(changes);
    const after = this.session().board().pages.get(page);
    if (!after) return;
    const made = materialOn(after).slice(-items.length);
    this.chosen(
      page,
      made.map(({ id }) => id),
    );
  }
}

function sizeOf({ kept: { kind, width, height } }: Came): { width: number; height: number } {
  if (kind === 'sound') return SOUND;
  const scale = kind === 'film' ? Math.max(PIXEL, FILM / width) : PIXEL;
  return { width: width * scale, height: height * scale };
}

function itemOf({ name, kept, poster, peaks }: Came, frame: Frame, order: string): ItemSpec {
  const common = { layer: 'material', order, frame, file: kept.file } as const;
  if (kept.kind === 'picture')
    return { ...common, kind: 'picture', alt: name.replace(/\.[^.]*$/, '') };
  return {
    ...common,
    kind: 'media',
    medium: kept.kind,
    name: name.slice(0, 200),
    length: kept.length,
    ...(poster ? { poster } : {}),
    ...(peaks ? { peaks } : {}),
  };
}
