import type { Point, Rect } from '@cuaderno/core/geometry';

/** CSS pixels a point at full size, which is 96/72, and at the largest zoom. */
export const FULL_SIZE = 96 / 72;
export const MAX_ZOOM = 16;
/** How much nearer a touch of a button or a key goes. */
export const ZOOM_STEP = 1.25;

/** What the window shows: the place at its top left corner, in points, and CSS pixels a point. */
export interface Camera {
  readonly x: number;
  readonly y: number;
  readonly zoom: number;
}

export interface Size {
  readonly width: number;
  readonly height: number;
}

export function toBoard(camera: Camera, p: Point): Point {
  return { x: camera.x + p.x / camera.zoom, y: camera.y + p.y / camera.zoom };
}

/** The camera that shows all of a part of the board, as large as can be, in the middle of the window. */
export function showing(part: Rect, window: Size): Camera {
  const zoom = Math.min(window.width / part.width, window.height / part.height);
  return {
    x: part.x + part.width / 2 - window.width / zoom / 2,
    y: part.y + part.height / 2 - window.height / zoom / 2,
    zoom,
  };
}

/** A camera on the way from one to another: zoom goes by ratio, as eyes see it. */
export function between(from: Camera, to: Camera, part: number): Camera {
  const mix = (a: number, b: number): number => a + (b - a) * part;
  return {
    x: mix(from.x, to.x),
    y: mix(from.y, to.y),
    zoom: from.zoom * (to.zoom / from.zoom) ** part,
  };
}

/**
 * Keeps the window over the run of pages: what is narrower than the window lies in its middle.
 * @param least the smallest zoom
 */
export function clamp(camera: Camera, run: Size, window: Size, least: number): Camera {
  const zoom = Math.min(MAX_ZOOM, Math.max(least, camera.zoom));
  const axis = (at: number, whole: number, pixels: number): number => {
    const shown = pixels / zoom;
    return shown >= whole ? (whole - shown) / 2 : Math.min(whole - shown, Math.max(0, at));
  };
  const y = Math.max(0, Math.min(camera.y, Math.max(0, run.height - window.height / zoom)));
  return { x: axis(camera.x, run.width, window.width), y, zoom };
}

/**
 * Zooms so that the place under `at` (CSS pixels in the window) stays where it is.
 * @param least the smallest zoom
 */
export function zoomAt(camera: Camera, at: Point, zoom: number, least: number): Camera {
  const next = Math.min(MAX_ZOOM, Math.max(least, zoom));
  const place = toBoard(camera, at);
  return { x: place.x - at.x / next, y: place.y - at.y / next, zoom: next };
}

/** How far from the window's edge a place is brought that was out of it, in CSS px. */
const EDGE = 70;

/** How far the board must go, and no farther, for a place of the window to be seen; in CSS px. */
export function panToShow(at: Point, { width, height }: Size): Point {
  const back = (n: number, most: number): number =>
    n < EDGE ? EDGE - n : n > most - EDGE ? most - EDGE - n : 0;
  return { x: back(at.x, width), y: back(at.y, height) };
}
