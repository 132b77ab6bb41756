/** Files of one folder on the machine they come from. */
export interface DroppedFolder {
  /** Names of folders from the one that was let go down to this; empty for files by themselves. */
  readonly path: readonly string[];
  readonly files: File[];
}

/** What was let go over a window: files, and folders with all that is in them. */
export async function droppedFiles(data: DataTransfer): Promise<DroppedFolder[]> {
  // What is carried is known only while the event is handled: entries are asked for first.
  const entries = [...data.items]
    .map((item) => item.webkitGetAsEntry())
    .filter((entry) => entry !== null);
  if (entries.length === 0) return [{ path: [], files: [...data.files] }];
  const found: DroppedFolder[] = [];
  await gather(entries, [], found);
  return found.filter(({ files }) => files.length > 0);
}

async function gather(
  entries: readonly FileSystemEntry[],
  path: readonly string[],
  found: DroppedFolder[],
): Promise<void> {
  const here: DroppedFolder = { path, files: [] };
  found.push(here);
  for (const entry of entries) {
    if (entry.isFile) {
      const file = await new Promise<File>((resolve, reject) =>
        (entry as FileSystemFileEntry).file(resolve, reject),
      ).catch(() => null);
      // Files that a system hides are meant for nobody.
      if (file && !file.name.startsWith('.')) here.files.push(file);
    } else
      await gather(await within(entry as FileSystemDirectoryEntry), [...path, entry.name], found);
  }
}

/** A reader gives a hundred entries at a time. */
async function within(folder: FileSystemDirectoryEntry): Promise<FileSystemEntry[]> {
  const reader = folder.createReader();
  const all: FileSystemEntry[] = [];
  for (;;) {
    const some = await new Promise<FileSystemEntry[]>((resolve, reject) =>
      reader.readEntries(resolve, reject),
    ).catch(() => []);
    if (some.length === 0) return all;
    all.push(...some);
  }
}
