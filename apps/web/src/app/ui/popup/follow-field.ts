/**
 * Tells each time a field is somewhere else or as wide as it wasn't, until it is ended. Nothing in a browser tells of a
 * move; what is asked in each frame costs next to nothing while one list or calendar is open.
 *
 * @returns ends it
 */
export function followField(field: HTMLElement, moved: () => void): () => void {
  let was = field.getBoundingClientRect();
  let frame = 0;
  const look = (): void => {
    const place = field.getBoundingClientRect();
    const isMoved = place.x !== was.x || place.y !== was.y || place.width !== was.width;
    was = place;
    if (isMoved) moved();
    frame = requestAnimationFrame(look);
  };
  frame = requestAnimationFrame(look);
  return () => cancelAnimationFrame(frame);
}
