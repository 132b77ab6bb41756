import { decodePiece, decodePoints, InkCodingError } from '@cuaderno/core';
import type { ClientMessage, Id, Point, ServerMessage } from '@cuaderno/core';

/** Strokes of a window that may become lines yet. */
const STROKES = 16;

type Of<Kind extends ClientMessage['kind']> = Extract<ClientMessage, { kind: Kind }>;

/** Where a stroke is drawn. */
export interface StrokePlace {
  readonly board: Id;
  readonly page: Id;
}

/** What a stroke needs of the window that draws it. */
export interface Drawer {
  readonly person: Id;
  /** Whether this person may write on a page just now. */
  mayWrite(place: StrokePlace): boolean;
  /** What stands for a board in what is told of it. */
  numberOf(board: Id): number;
  /** A number for a stroke that begins. */
  number(): number;
  /** Tells the others, as far as they may see the page. */
  passOn(message: ServerMessage, place: StrokePlace): void;
  /** Points that no pen could have drawn. */
  refuse(): void;
}

/** The stroke that a window is drawing just now. */
export class StrokeUnderWay {
  private now: {
    readonly id: Id;
    readonly place: StrokePlace;
    /** What stands for it in its pieces, and the point from which they are reckoned. */
    readonly n: number;
    readonly origin: Point;
  } | null = null;
  /** Numbers of the strokes that were drawn last, by the ids of the lines that they will be. */
  private readonly numbers = new Map<Id, number>();

  constructor(private readonly by: Drawer) {}

  begin(message: Of<'live.ink'>): void {
    const place = { board: message.board, page: message.start.page };
    if (!this.by.mayWrite(place)) return;
    const [origin] = this.inked(() => decodePoints(message.points));
    if (!origin) return;
    const n = this.by.number();
    const { stroke, start } = message;
    const on = this.by.numberOf(place.board);
    this.now = { id: stroke, place, n, origin };
    this.numbers.set(stroke, n);
    if (this.numbers.size > STROKES) this.numbers.delete(this.numbers.keys().next().value!);
    const { points } = message;
    this.by.passOn({ kind: 'live.ink', on, start, points, by: this.by.person, n }, place);
  }

  goOn({ piece }: Of<'live.more'>): void {
    // A stroke that nobody was shown is nowhere, and nobody may see it.
    const { now } = this;
    if (!now || !this.by.mayWrite(now.place)) return;
    if (this.inked(() => decodePiece(piece, now.origin)).length === 0) return;
    this.by.passOn({ kind: 'live.more', n: now.n, piece }, now.place);
  }

  /** Whether it is drawn on this board. */
  isOn(board: Id): boolean {
    return this.now?.place.board === board;
  }

  end(stroke: Id): void {
    if (this.now?.id === stroke) this.stop();
  }

  /** Gives it up if its writer may not write where it is any longer. */
  check(): void {
    if (this.now && !this.by.mayWrite(this.now.place)) this.stop();
  }

  /** Gives it up: the pen was taken back. */
  stop(): void {
    const { now } = this;
    if (!now) return;
    this.by.passOn({ kind: 'live.end', n: now.n, item: null }, now.place);
    this.now = null;
  }

  /** What stood for the stroke that has become this operation, if one has. */
  thatIs(op: Id): number | undefined {
    const n = this.numbers.get(op);
    this.numbers.delete(op);
    return n;
  }

  /** Points of the stroke; none, and a word to who sent them, where no pen could have drawn them. */
  private inked(read: () => readonly Point[]): readonly Point[] {
    try {
      return read();
    } catch (error) {
      if (!(error instanceof InkCodingError)) throw error;
      this.by.refuse();
      return [];
    }
  }
}
