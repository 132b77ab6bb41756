/** Puts a text onto the clipboard. */
export async function copyText(text: string): Promise<void> {
  try {
    await navigator.clipboard.writeText(text);
  } catch {
    // Without https browsers keep the clipboard to themselves; then this is how it is done.
    prompt('Copy this:', text);
  }
}
