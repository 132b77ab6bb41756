/** Remembers as long as the window is there. */
class WindowStorage implements Storage {
  private readonly entries = new Map<string, string>();

  get length(): number {
    return this.entries.size;
  }

  key(index: number): string | null {
    return [...this.entries.keys()][index] ?? null;
  }

  getItem(key: string): string | null {
    return this.entries.get(key) ?? null;
  }

  setItem(key: string, value: string): void {
    this.entries.set(key, value);
  }

  removeItem(key: string): void {
    this.entries.delete(key);
  }

  clear(): void {
    this.entries.clear();
  }
}

/**
 * What a browser keeps for a page: `localStorage`, say. Where pages may keep nothing (a switch in its settings), what
 * this window remembers by itself: all works, and is gone with the window.
 *
 * Never throws; what it returns may throw when it is full.
 */
export function openStorage(open: () => Storage): Storage {
  try {
    const storage = open();
    // Some hand it out and refuse each use of it.
    storage.getItem('');
    return storage;
  } catch {
    return new WindowStorage();
  }
}

/** Kept until it is deleted. */
export const lasting: Storage = openStorage(() => localStorage);
/** Kept as long as the tab is there. */
export const ofTab: Storage = openStorage(() => sessionStorage);

/** Keeps what is a convenience: where there is no room for it, it lasts as long as the window. */
export function remember(storage: Storage, key: string, value: string): void {
  try {
    storage.setItem(key, value);
  } catch {
    // It is found as it usually is, next time.
  }
}
