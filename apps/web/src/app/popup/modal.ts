const MODAL = '[aria-modal="true"], dialog[open]';

/**
 * Whether a dialog lies over the screen: what is typed then is meant for it, though it may not have taken the focus
 * yet, or has it on a button.
 */
export function isModalOpen(): boolean {
  return document.querySelector(MODAL) !== null;
}

/** Whether a dialog lies over the screen that hasn't taken the focus yet: whoever types means something in it. */
export function isModalComing(): boolean {
  const dialogs = [...document.querySelectorAll(MODAL)];
  return dialogs.length > 0 && !dialogs.some((one) => one.contains(document.activeElement));
}
