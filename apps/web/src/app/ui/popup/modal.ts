function modals(): Element[] {
  return [...document.querySelectorAll('[aria-modal="true"], dialog:modal')];
}

/**
 * Whether a dialog lies over the screen: what is typed then is meant for it, though it may not have taken the focus
 * yet, or has it on a button. A sheet at the side leaves the rest to be used, and is none.
 */
export function isModalOpen(): boolean {
  return modals().length > 0;
}

/** Whether a dialog lies over all that hasn't taken the focus yet: anyone who types means something in it. */
export function isModalComing(): boolean {
  const dialogs = modals();
  return dialogs.length > 0 && !dialogs.some((one) => one.contains(document.activeElement));
}

/** Whether it is in a sheet at the side: letters typed there are no shortcuts of the page. */
export function isInSidePanel(target: EventTarget | null): boolean {
  return target instanceof Element && target.closest('dialog') !== null;
}
