/** The engine's own, as it was before anything was loaded. */
const push = Object.getOwnPropertyDescriptor(Array.prototype, 'push')!;

/** Puts the engine's own `Array.prototype.push` back. */
export function restorePush(): void {
  Object.defineProperty(Array.prototype, 'push', push);
}
