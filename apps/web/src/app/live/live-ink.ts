import { decodePoints, encodePoints } from '@cuaderno/core/ink';
import { decodePiece, encodePiece } from '@cuaderno/core/wire';
import type { ClientMessage, ServerMessage } from '@cuaderno/core/features';
import type { Point } from '@cuaderno/core/geometry';
import type { Id } from '@cuaderno/core/id';
import type { InkPoint, InkStyle } from '@cuaderno/core/ink';

/** Where and how a stroke is drawn. */
export interface StrokeStart {
  readonly page: Id;
  readonly style: InkStyle;
}

/** Someone else's stroke under way, piece by piece; `n` stands for it. */
export type LiveInkEvent =
  | {
      readonly kind: 'points';
      readonly n: number;
      readonly by: Id;
      /** With the first points of it. */
      readonly start: StrokeStart | undefined;
      readonly points: readonly InkPoint[];
    }
  /** It is this item, which follows; or was given up. */
  | {
      readonly kind: 'end';
      readonly n: number;
      readonly item: Id | null;
    };

/** Strokes of which pieces may still come, at most. */
const KNOWN = 64;

/** Strokes under way, as messages: the first says all about one, and what follows is only points. */
export class InkSender {
  /** The stroke that is drawn here just now. */
  private own: { readonly stroke: Id; readonly origin: Point } | null = null;
  /** Others' strokes, by the numbers that stand for them. */
  private readonly known = new Map<number, { on: number; by: Id; origin: Point }>();

  /** @param start with the first points of a stroke @returns what to send; `null` where nobody knows the stroke */
  outgoing(
    board: Id,
    stroke: Id,
    start: StrokeStart | undefined,
    points: readonly InkPoint[],
  ): ClientMessage | null {
    if (start) {
      const coded = encodePoints(points);
      this.own = { stroke, origin: decodePoints(coded)[0]! };
      return { kind: 'live.ink', board, stroke, start, points: coded };
    }
    if (this.own?.stroke !== stroke) return null;
    return { kind: 'live.more', piece: encodePiece(points, this.own.origin) };
  }

  incoming(
    message: Extract<ServerMessage, { kind: 'live.ink' | 'live.more' | 'live.end' }>,
  ): { readonly on: number; readonly event: LiveInkEvent } | null {
    switch (message.kind) {
      case 'live.ink': {
        const { on, by, start, n } = message;
        const points = decodePoints(message.points);
        this.known.delete(n);
        this.known.set(n, { on, by, origin: points[0]! });
        if (this.known.size > KNOWN) this.known.delete(this.known.keys().next().value!);
        return { on, event: { kind: 'points', n, by, start, points } };
      }
      case 'live.more': {
        // Of a stroke whose beginning was lost, or that began before one came, the whole is seen when it is finished.
        const of = this.known.get(message.n);
        if (!of) return null;
        // Those that go on are remembered, however many begin and end meanwhile.
        this.known.delete(message.n);
        this.known.set(message.n, of);
        const { on, by, origin } = of;
        const points = decodePiece(message.piece, origin);
        return { on, event: { kind: 'points', n: message.n, by, start: undefined, points } };
      }
      case 'live.end': {
        const on = this.known.get(message.n)?.on;
        return on !== undefined
          ? { on, event: { kind: 'end', n: message.n, item: message.item } }
          : null;
      }
    }
  }

  /** A new line begins: numbers stand for other strokes from now on. */
  forget(): void {
    this.own = null;
    this.known.clear();
  }
}
