import fc from 'fast-check';
import { InkCodingError } from '../ink/index.js';
import type { InkPoint } from '../ink/index.js';
import { handwriting } from '../testing/index.js';
import { packMessage, packTogether, readClientMessage, readServerMessages } from './codec.js';
import { decodePiece, encodePiece, joinPieces } from './live-piece.js';

const place = fc.double({ min: -2000, max: 2000, noNaN: true });
const point: fc.Arbitrary<InkPoint> = fc.record({
  x: place,
  y: place,
  pressure: fc.double({ min: 0, max: 1, noNaN: true }),
  time: fc.constant(0),
});

describe('pieces of a stroke under way', () => {
  it('are what they were, to a sixteenth of a point, wherever the stroke began', () => {
    fc.assert(
      fc.property(fc.array(point, { minLength: 1, maxLength: 20 }), point, (points, origin) => {
        const back = decodePiece(encodePiece(points, origin), origin);
        expect(back.length).toBe(points.length);
        back.forEach(({ x, y, pressure }, i) => {
          expect(Math.abs(x - points[i]!.x)).toBeLessThanOrEqual(1 / 16);
          expect(Math.abs(y - points[i]!.y)).toBeLessThanOrEqual(1 / 16);
          expect(Math.abs(pressure - points[points.length - 1]!.pressure)).toBeLessThan(0.005);
        });
      }),
    );
  });

  it('travel as bytes that are no MessagePack, with the number of their stroke from the server', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: (1 << 14) - 1 }),
        fc.array(point, { minLength: 1 }),
        (n, points) => {
          const piece = encodePiece(points, points[0]!);
          const [told] = readServerMessages(packMessage({ kind: 'live.more', n, piece }));
          if (!told) throw new Error('Nothing was told.');
          expect(told.kind === 'live.more' && told.n).toBe(n);
          expect(told.kind === 'live.more' && [...told.piece]).toEqual([...piece]);
          const said = readClientMessage(packMessage({ kind: 'live.more', piece }));
          expect(said.kind === 'live.more' && [...said.piece]).toEqual([...piece]);
        },
      ),
    );
  });

  it('and whatever else the server tells in one are what they are alone, in their order', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(200), { minLength: 1, maxLength: 40 }), (numbers) => {
        const piece = encodePiece([{ x: 3, y: 4, pressure: 0.5, time: 0 }], { x: 0, y: 0 });
        // Every third tells something else.
        const messages = numbers.map((n, i) =>
          packMessage(n % 3 === 0 ? { kind: 'pong', n } : { kind: 'live.more', n: i, piece }),
        );
        const alone = messages.flatMap(readServerMessages);
        expect(readServerMessages(packTogether(messages))).toEqual(alone);
        expect(alone.length).toBe(numbers.length);
      }),
    );
  });

  it('are joined where they are of one stroke, and are the same points', () => {
    const some = fc.array(point, { minLength: 1, maxLength: 20 });
    fc.assert(
      fc.property(fc.array(some, { minLength: 1, maxLength: 5 }), point, (each, origin) => {
        const pieces = each.map((points) => encodePiece(points, origin));
        const places = (piece: Uint8Array) => decodePiece(piece, origin).map(({ x, y }) => [x, y]);
        const joined = joinPieces(pieces);
        expect(places(joined)).toEqual(pieces.flatMap(places));
        expect(joined[0]).toBe(pieces.at(-1)![0]);
      }),
    );
  });

  it('go as one for each stroke, unless something else was told between them', () => {
    const piece = (x: number) => encodePiece([{ x, y: 0, pressure: 0.5, time: 0 }], { x: 0, y: 0 });
    const more = (n: number, x: number) => packMessage({ kind: 'live.more', n, piece: piece(x) });
    const told = readServerMessages(
      packTogether([
        ...[more(1, 10), more(2, 50), more(1, 11), more(2, 51)],
        packMessage({ kind: 'pong', n: 0 }),
        ...[more(1, 12), more(1, 13)],
      ]),
    );
    const seen = told.map((message) =>
      message.kind === 'live.more'
        ? [message.n, ...decodePiece(message.piece, { x: 0, y: 0 }).map(({ x }) => x)]
        : message.kind,
    );
    expect(seen).toEqual([[1, 10, 11], [2, 50, 51], 'pong', [1, 12, 13]]);
  });

  it('of handwriting take some eight bytes a frame of two points', () => {
    const { points } = handwriting(3, { count: 200 });
    let bytes = 0;
    for (let i = 2; i + 2 <= points.length; i += 2)
      bytes += packMessage({
        kind: 'live.more',
        n: 9000,
        piece: encodePiece(points.slice(i, i + 2), points[0]!),
      }).length;
    expect(bytes / (points.length / 2 - 1)).toBeLessThan(11);
  });

  it('are refused where no pen could have drawn them', () => {
    const origin = { x: 10, y: 10 };
    for (const bytes of [[], [64], [200, 1, 1], [64, 1], [64, 255, 255, 255, 255, 127, 1]])
      expect(() => decodePiece(Uint8Array.from(bytes), origin))
        .withContext(String(bytes))
        .toThrowError(InkCodingError);
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 60 }), (bytes) => {
        try {
          decodePiece(bytes, origin);
        } catch (error) {
          expect(error).toBeInstanceOf(InkCodingError);
        }
      }),
    );
  });
});
