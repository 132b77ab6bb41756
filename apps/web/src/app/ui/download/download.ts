/** How long an address for a download is kept, in ms: browsers fetch it at their leisure. */
const KEPT = 60_000;

/** Has the browser save a file. */
export function download(blob: Blob, name: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(blob);
  link.download = fileName(name);
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), KEPT);
}

/** A name that every system takes for a file. */
export function fileName(name: string): string {
  const plain = name
    .replace(/[\p{Cc}<>:"/\\|?*]/gu, ' ')
    .replace(/\s+/g, ' ')
    .trim();
  return plain.replace(/^\.+/, '') || 'board';
}
