import { ItemSnapshot } from '@cuaderno/core/board';
import { STORED_VERSION, upgradeStored } from '@cuaderno/core/stored';
import { pack, unpack } from '@cuaderno/core/wire';
import type { Item } from '@cuaderno/core/board';

/** How items are called on the clipboard; anything else there is not ours. */
const TYPE = 'text/x-cuaderno-items';

/** Puts items on the clipboard, for this board or another. */
export function copyItems(data: DataTransfer, items: readonly Item[]): void {
  const bytes = pack({ version: STORED_VERSION, items });
  data.setData(TYPE, btoa(Array.from(bytes, (byte) => String.fromCharCode(byte)).join('')));
}

/** Items on the clipboard; `null` where there are none, or none that can be read. */
export function pastedItems(data: DataTransfer): Item[] | null {
  const text = data.getData(TYPE);
  if (!text) return null;
  try {
    const bytes = Uint8Array.from(atob(text), (letter) => letter.charCodeAt(0));
    // It may have been put there by anything.
    return ItemSnapshot.array().parse(itemsOf(unpack(bytes))) as Item[];
  } catch {
    return null;
  }
}

/** In the words of now; the first build put them there as a list. */
function itemsOf(copied: unknown): unknown[] {
  const { version, items } = (Array.isArray(copied) ? { version: 1, items: copied } : copied) as {
    version: unknown;
    items: unknown[];
  };
  return items.map((item) => upgradeStored('item', item, version));
}
