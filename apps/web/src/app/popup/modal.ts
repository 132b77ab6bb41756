/**
 * Whether a dialog lies over the screen: what is typed then is meant for it, though it may not have taken the focus
 * yet, or has it on a button.
 */
export function isModalOpen(): boolean {
  return document.querySelector('[aria-modal="true"], dialog[open]') !== null;
}

/**
 * Whether a dialog lies over all that hasn't taken the focus yet: whoever types means something in it. A sheet at the
 * side leaves the rest to be used, and is none.
 */
export function isModalComing(): boolean {
  const dialogs = [...document.querySelectorAll('[aria-modal="true"], dialog:modal')];
  return dialogs.length > 0 && !dialogs.some((one) => one.contains(document.activeElement));
}
