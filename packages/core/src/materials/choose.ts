import { foldCase } from '../find/index.js';
import type { Asset } from './asset.js';
import { byName } from './tree.js';

/** Ways in which files can be put in order. */
export type AssetOrder = 'name' | 'newest' | 'largest' | 'kind';

const ORDERS: Record<AssetOrder, (a: Asset, b: Asset) => number> = {
  name: byName,
  newest: (a, b) => b.createdAt - a.createdAt || byName(a, b),
  largest: (a, b) => b.bytes - a.bytes || byName(a, b),
  kind: (a, b) => (a.kind < b.kind ? -1 : a.kind > b.kind ? 1 : byName(a, b)),
};

export function inOrder<A extends Asset>(assets: readonly A[], order: AssetOrder): A[] {
  return [...assets].sort(ORDERS[order]);
}

/** Files whose names were folded once, to be chosen from with every key. */
export class AssetIndex<A extends Asset> {
  private readonly known: readonly { readonly asset: A; readonly text: string }[];

  /** @param more further words by which a file is found, as its folder's name */
  constructor(assets: readonly A[], more: (asset: A) => string = () => '') {
    this.known = assets.map((asset) => ({
      asset,
      text: ` ${foldCase(asset.name).text} ${foldCase(more(asset)).text}`,
    }));
  }

  /**
   * Those in which every word of the query is, in any order; without a query, all of them. They
   * keep their order, those in which all are beginnings of words before the others.
   */
  matching(query: string): A[] {
    const words = foldCase(query.trim()).text.split(' ').filter(Boolean);
    if (words.length === 0) return this.known.map(({ asset }) => asset);
    const first: A[] = [];
    const others: A[] = [];
    for (const { asset, text } of this.known) {
      if (!words.every((word) => text.includes(word))) continue;
      (words.every((word) => begins(text, word)) ? first : others).push(asset);
    }
    return [...first, ...others];
  }
}

function begins(text: string, word: string): boolean {
  for (let at = text.indexOf(word); at >= 0; at = text.indexOf(word, at + 1))
    if (!/[\p{L}\p{N}]/u.test(text[at - 1]!)) return true;
  return false;
}
