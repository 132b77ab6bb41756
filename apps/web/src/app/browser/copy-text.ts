/**
 * Puts a text onto the clipboard.
 *
 * Plain http has no `navigator.clipboard`: there a field is selected and copied, as browsers have long done. Where that
 * is refused, too, the text is shown to be copied by hand.
 *
 * @returns whether it is on the clipboard
 */
export async function copyText(text: string): Promise<boolean> {
  try {
    await navigator.clipboard.writeText(text);
    return true;
  } catch {
    if (copyByField(text)) return true;
    prompt('Copy this:', text);
    return false;
  }
}

function copyByField(text: string): boolean {
  const before = document.activeElement;
  const field = document.createElement('textarea');
  field.value = text;
  field.readOnly = true;
  field.style.cssText = 'position: fixed; opacity: 0';
  // Within a dialog that keeps the focus to itself, it must lie in there.
  (before?.closest('dialog, [role="dialog"]') ?? document.body).append(field);
  field.select();
  try {
    return document.execCommand('copy');
  } catch {
    return false;
  } finally {
    field.remove();
    if (before instanceof HTMLElement) before.focus();
  }
}
