import type { Lamp, Place } from '@cuaderno/core/features';
import type { Point } from '@cuaderno/core/geometry';
import type { Id } from '@cuaderno/core/id';
import type { Camera } from './camera';
import { toBoard } from './camera';
import type { Sample } from './gestures';
import type { Placed } from './layout';
import { pageUnder } from './pointer-tool';
import type { PointerTool } from './pointer-tool';

interface Surface {
  camera(): Camera;
  seen(): readonly Placed[];
}

/** How often a dot's place is sent while it moves, in ms. */
const EVERY = 16;

/** Points at a place, as long as the hand is over the page; or leaves an arrow there. */
export class PointerDot implements PointerTool {
  private at: Place | null = null;
  private saidAt = 0;

  constructor(
    private readonly surface: Surface & { leaves(): boolean },
    private readonly tell: (at: Place | null) => void,
    private readonly leave: (at: Place) => void,
    private readonly now: () => number = () => performance.now(),
  ) {}

  down(sample: Sample): boolean {
    const at = this.placeOf(sample);
    if (!at) return false;
    if (this.surface.leaves()) this.leave(at);
    else this.send(at);
    return true;
  }

  move(samples: readonly Sample[]): void {
    const last = samples[samples.length - 1];
    if (last && !this.surface.leaves()) this.over(last);
  }

  /** A mouse or a pen moves over the page without touching it. */
  over(sample: { x: number; y: number }): void {
    const at = this.placeOf(sample);
    if (!at) return this.off();
    const now = this.now();
    if (!this.at || now - this.saidAt >= EVERY) this.send(at);
  }

  up(): void {
    // A mouse goes on pointing; a finger is gone, and `off` is called.
  }

  lost(): void {
    this.off();
  }

  off(): void {
    if (!this.at) return;
    this.at = null;
    this.tell(null);
  }

  private send(at: Place): void {
    this.at = at;
    this.saidAt = this.now();
    this.tell(at);
  }

  private placeOf(sample: { x: number; y: number }): Place | null {
    const under = pageUnder(this.surface.camera(), this.surface.seen(), sample);
    return under && { page: under.placed.page.id, x: under.p.x, y: under.p.y };
  }
}

/** A drag shorter than this, in CSS px, is a touch: then the lamp has its usual size. */
const TOUCH = 8;
/** A lamp that is smaller than this, in CSS px, shows nothing: a hand slipped, and meant a touch. */
const LEAST = 32;
/** Usual diameter of the lamp, in CSS px. */
const USUAL = 220;

/** Lights the lamp where it is drawn, and moves it where it is taken hold of. */
export class LampTool implements PointerTool {
  private under: { placed: Placed; from: Point; moving: Lamp | null } | null = null;
  private lamp: Lamp | null = null;

  constructor(
    private readonly surface: Surface & { lamp(): Lamp | null; shape(): Lamp['shape'] },
    private readonly tell: (lamp: Lamp, final: boolean) => void,
  ) {}

  down(sample: Sample): boolean {
    const found = pageUnder(this.surface.camera(), this.surface.seen(), sample);
    if (!found) return false;
    const now = this.surface.lamp();
    const { p, placed } = found;
    const inside = now?.page === placed.page.id && lights(now, p);
    this.under = { placed, from: p, moving: inside ? now : null };
    this.lamp = null;
    return true;
  }

  move(samples: readonly Sample[]): void {
    const { under } = this;
    const last = samples[samples.length - 1];
    if (!under || !last) return;
    const camera = this.surface.camera();
    const at = toBoard(camera, last);
    const p = { x: at.x - under.placed.x, y: at.y - under.placed.y };
    const [dx, dy] = [p.x - under.from.x, p.y - under.from.y];
    if (!this.lamp && Math.hypot(dx, dy) * camera.zoom < TOUCH) return;
    this.lamp = under.moving
      ? { ...under.moving, x: under.moving.x + dx, y: under.moving.y + dy }
      : this.between(under.placed.page.id, under.from, p);
    this.tell(this.lamp, false);
  }

  up(): void {
    const { under, lamp } = this;
    this.under = null;
    if (!under) return;
    const { zoom } = this.surface.camera();
    const side = USUAL / zoom;
    const { x, y } = under.from;
    const usual = { x: x - side / 2, y: y - side / 2, width: side, height: side };
    const shows = lamp && Math.min(lamp.width, lamp.height) * zoom >= LEAST;
    if (lamp && (shows || under.moving)) this.tell(lamp, true);
    else if (!under.moving)
      this.tell({ page: under.placed.page.id, shape: this.surface.shape(), ...usual }, true);
  }

  lost(): void {
    if (this.lamp) this.tell(this.lamp, true);
    this.under = null;
  }

  private between(page: Id, a: Point, b: Point): Lamp {
    return {
      page,
      shape: this.surface.shape(),
      x: Math.min(a.x, b.x),
      y: Math.min(a.y, b.y),
      width: Math.max(4, Math.abs(a.x - b.x)),
      height: Math.max(4, Math.abs(a.y - b.y)),
    };
  }
}

function lights({ shape, x, y, width, height }: Lamp, p: Point): boolean {
  if (shape === 'box') return p.x >= x && p.y >= y && p.x <= x + width && p.y <= y + height;
  const [dx, dy] = [(p.x - x) / width - 0.5, (p.y - y) / height - 0.5];
  return dx * dx + dy * dy <= 0.25;
}
