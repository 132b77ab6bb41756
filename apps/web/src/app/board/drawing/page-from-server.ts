import { shownSize } from '@cuaderno/core/geometry';
import type { PdfPaper } from '@cuaderno/core/board';

/** Longest sides that the server draws, in pixels. */
const SIDES = [540, 720, 960, 1440] as const;
/** Pictures that are kept decoded: of the page in view and those beside it. */
const KEPT = 4;
/** So much less than sharp is taken for sharp: nobody sees it. */
const NEARLY = 0.98;

/** Pictures of printed pages that the server draws, for lines on which the PDF and its reader take long to come. */
export class PagesFromServer {
  private readonly kept = new Map<string, Promise<ImageBitmap>>();
  /** One comes after the other: the page in view has the line to itself. */
  private last: Promise<unknown> = Promise.resolve();

  /**
   * Draws what was asked for as well as there is need, or as the server can.
   * @returns whether it is sharp. Rejects where it doesn't come, and with an `AbortError` if given up.
   */
  async draw(
    paper: PdfPaper,
    canvas: HTMLCanvasElement,
    { x, y, scale }: { readonly x: number; readonly y: number; readonly scale: number },
    signal: AbortSignal,
  ): Promise<boolean> {
    const { width, height } = shownSize(paper);
    const longest = Math.max(width, height);
    const side = SIDES.find((side) => side >= longest * scale * NEARLY) ?? SIDES[SIDES.length - 1]!;
    const bitmap = await this.picture(paper, side, signal);
    signal.throwIfAborted();
    const context = canvas.getContext('2d')!;
    context.fillStyle = '#ffffff';
    context.fillRect(0, 0, canvas.width, canvas.height);
    context.imageSmoothingQuality = 'high';
    context.drawImage(bitmap, -x * scale, -y * scale, width * scale, height * scale);
    return side >= longest * scale * NEARLY;
  }

  close(): void {
    for (const picture of this.kept.values())
      void picture.then(
        (bitmap) => bitmap.close(),
        () => undefined,
      );
    this.kept.clear();
  }

  private picture(
    { file, number }: PdfPaper,
    side: number,
    signal: AbortSignal,
  ): Promise<ImageBitmap> {
    const address = `/api/files/${file}/pages/${number}?side=${side}`;
    const known = this.kept.get(address);
    if (known) return known;
    const coming = this.last.then(async () => {
      signal.throwIfAborted();
      const response = await fetch(address, { signal });
      if (!response.ok) throw new Error(String(response.status));
      return createImageBitmap(await response.blob());
    });
    this.last = coming.catch(() => undefined);
    this.kept.set(address, coming);
    coming.catch(() => this.kept.delete(address));
    for (const [oldest, picture] of this.kept) {
      if (this.kept.size <= KEPT) break;
      this.kept.delete(oldest);
      void picture.then(
        (bitmap) => bitmap.close(),
        () => undefined,
      );
    }
    return coming;
  }
}
