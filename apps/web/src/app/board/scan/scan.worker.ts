import { findPaper, flattened } from '@cuaderno/core/scan';
import type { Raster } from '@cuaderno/core/scan';
import type { ScanNews, ScanTask } from './messages';

/** How good the picture is that is made, as JPEG. */
const QUALITY = 0.9;

let picture: Raster | null = null;

/* Finds the paper on a picture, and makes it flat: a thread of its own, since both look at every pixel. */
addEventListener('message', (event: MessageEvent<ScanTask>) => {
  answer(event.data).then(
    (news) => postMessage(news),
    () => postMessage({ kind: 'fault' } satisfies ScanNews),
  );
});

async function answer(task: ScanTask): Promise<ScanNews> {
  if (task.kind === 'find') {
    picture = await pixelsOf(task.picture);
    const { width, height } = picture;
    return { kind: 'found', corners: findPaper(picture), width, height };
  }
  const flat = picture && flattened(picture, task.corners);
  if (!flat) return { kind: 'fault' };
  const canvas = new OffscreenCanvas(flat.width, flat.height);
  const data = new ImageData(flat.data as Uint8ClampedArray<ArrayBuffer>, flat.width, flat.height);
  canvas.getContext('2d')!.putImageData(data, 0, 0);
  return {
    kind: 'flat',
    picture: await canvas.convertToBlob({ type: 'image/jpeg', quality: QUALITY }),
  };
}

async function pixelsOf(blob: Blob): Promise<Raster> {
  const bitmap = await createImageBitmap(blob);
  const { width, height } = bitmap;
  const context = new OffscreenCanvas(width, height).getContext('2d')!;
  // What can be seen through is paper.
  context.fillStyle = '#ffffff';
  context.fillRect(0, 0, width, height);
  context.drawImage(bitmap, 0, 0);
  bitmap.close();
  return context.getImageData(0, 0, width, height);
}
