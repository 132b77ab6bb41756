import type { Asset, AssetKind } from '@cuaderno/core/materials';
import { formatPlace } from '../../ui/time/format-time';

const KINDS: Record<AssetKind, string> = {
  pdf: 'PDF',
  slides: 'Slides',
  board: 'Saved board',
  picture: 'Picture',
  sound: 'Sound',
  film: 'Film',
};

/** "340 kB", "2.4 MB": thousands, as files are sold and sent. */
export function formatBytes(bytes: number): string {
  if (bytes < 1000) return `${bytes} bytes`;
  if (bytes < 999_500) return `${Math.round(bytes / 1000)} kB`;
  const mega = bytes / 1_000_000;
  return `${mega < 10 ? mega.toFixed(1) : Math.round(mega)} MB`;
}

/** "PDF, 12 pages", "Film, 1:20": what a file is, in a few words. */
export function formatAsset({ kind, pages, length, width, height }: Asset): string {
  const what = KINDS[kind];
  if (pages !== null) return `${what}, ${pages === 1 ? '1 page' : `${pages} pages`}`;
  if (length > 0) return `${what}, ${formatPlace(length)}`;
  if (kind === 'picture') return `${what}, ${width} × ${height}`;
  return what;
}

/** "pages 1–3 and 7" of numbers in order. */
export function formatPages(pages: readonly number[]): string {
  const runs: [number, number][] = [];
  for (const page of pages) {
    const last = runs.at(-1);
    if (last && last[1] === page - 1) last[1] = page;
    else runs.push([page, page]);
  }
  const words = runs.map(([from, to]) => (from === to ? `${from}` : `${from}–${to}`));
  const list = words.length > 1 ? `${words.slice(0, -1).join(', ')} and ${words.at(-1)}` : words[0];
  return `${pages.length === 1 ? 'page' : 'pages'} ${list}`;
}

/** "“Ebb.pdf”" or "3 things". */
export function formatNames(names: readonly string[]): string {
  return names.length === 1 ? `“${names[0]}”` : `${names.length} things`;
}
