/**
 * Whether a dialog lies over the screen: what is typed then is meant for it, though it may not have taken the focus
 * yet, or has it on a button.
 */
export function isModalOpen(): boolean {
  return document.querySelector('[aria-modal="true"], dialog[open]') !== null;
}
