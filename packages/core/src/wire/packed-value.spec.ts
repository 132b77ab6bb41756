import { decode, encode } from '@msgpack/msgpack';
import fc from 'fast-check';
import { MAX_OPERATIONS } from '../features/index.js';
import { newId } from '../id/index.js';
import { addInk, addMark } from '../testing/index.js';
import { inMessages, MessageError, pack, readClientMessage } from './index.js';
import { mostOf, packedKind, packedOperationIds } from './message-limits.js';
import { faultOf } from './packed-value.js';

const ROOMY = { bytes: 1_000_000, values: 100_000, text: 1_000_000, depth: 40 };

/** So many heads, one in the other, and nothing in the last. */
function nested(head: readonly number[], times: number): Uint8Array {
  return Uint8Array.from(Array.from({ length: times }, () => head).flat());
}

describe('what a packed value holds, before it is built', () => {
  it('is taken where it is MessagePack of ours, whatever is in it', () => {
    const some = fc.object({
      values: [fc.string(), fc.double(), fc.integer(), fc.boolean(), fc.constant(null)],
      key: fc.string().filter((key) => key !== '__proto__'),
    });
    fc.assert(
      fc.property(some, fc.uint8Array(), (value, bytes) => {
        expect(faultOf(encode({ value, bytes }), ROOMY)).toBeNull();
      }),
    );
  });

  it('agrees with who builds it on where it ends', () => {
    fc.assert(
      fc.property(fc.uint8Array({ minLength: 1, maxLength: 60 }), (bytes) => {
        if (faultOf(bytes, ROOMY) === null) expect(() => decode(bytes)).not.toThrow();
      }),
      { numRuns: 3000 },
    );
  });

  it('is refused where it asks for more than it brings', () => {
    const hostile: [string, Uint8Array][] = [
      ['lists of 16,383 in lists', nested([0xdc, 0x3f, 0xff], 34_000)],
      ['lists of 4,294,967,295 in lists', nested([0xdd, 0xff, 0xff, 0xff, 0xff], 20_000)],
      ['maps in lists', nested([0x91, 0xde, 0, 0x3f], 25_000)],
      ['a text that isn’t there', Uint8Array.of(0xdb, 0, 0, 0, 9, 65)],
      ['bytes that aren’t there', Uint8Array.of(0xc6, 0xff, 0xff, 0xff, 0xff, 1)],
      ['a head without its count', Uint8Array.of(0xdd, 0, 0)],
      ['an extension', Uint8Array.of(0xd6, 0xff, 0, 0, 0, 0)],
      ['a key that is a number', Uint8Array.of(0x81, 1, 1)],
      ['a key that is a list', Uint8Array.of(0x81, 0x90, 1)],
      ['a key that changes what objects are', encode(JSON.parse('{"__proto__":1}'))],
      ['something after it', Uint8Array.of(1, 1)],
      ['nothing at all', new Uint8Array()],
    ];
    for (const [what, bytes] of hostile)
      expect(faultOf(bytes, ROOMY)).withContext(what).toBe('not-readable');
  });

  it('is refused where it is too much: bytes, values, depth', () => {
    const deep = Uint8Array.from([...nested([0x91], 41), 1]);
    expect(faultOf(deep, ROOMY)).toBe('too-large');
    expect(faultOf(encode(Array.from({ length: 200 }, () => 1)), { ...ROOMY, values: 200 })).toBe(
      'too-large',
    );
    expect(faultOf(encode('ab'.repeat(50)), { ...ROOMY, bytes: 100 })).toBe('too-large');
    expect(faultOf(Uint8Array.of(0xde, 0x0f, 0xff), ROOMY)).toBe('too-large');
    expect(faultOf(encode(['ab', 'cde']), { ...ROOMY, text: 4 })).toBe('too-large');
  });
});

describe('a message', () => {
  const refused = (data: Uint8Array | string): string => {
    try {
      readClientMessage(data);
      return 'taken';
    } catch (error) {
      return error instanceof MessageError ? error.reason : String(error);
    }
  };

  it('has the limits of its kind, however its fields are ordered', () => {
    const words = 'x'.repeat(2000);
    expect(refused(pack({ kind: 'page.viewed', page: words }))).toBe('too-large');
    expect(refused(pack({ page: words, kind: 'page.viewed' }))).toBe('too-large');
    expect(refused(pack({ kind: 'hello', protocol: 1, since: -1, more: words }))).toBe('too-large');
    expect(refused(pack({ kind: 'chat', id: newId(), to: 'all', text: words }))).toBe('taken');
    const ones = Array.from({ length: mostOf('tutor').values }, () => 1);
    expect(refused(pack({ kind: 'ops', ops: ones }))).toBe('too-large');
    expect(
      refused(JSON.stringify({ kind: 'chat', id: newId(), to: 'all', text: 'x'.repeat(5000) })),
    ).toBe('too-large');
    expect(refused(`${'['.repeat(3000)}${']'.repeat(3000)}`)).toBe('too-large');
  });

  it('is what a student may send of it, and none is longer where much is sent', () => {
    const page = newId();
    const ops = [
      ...Array.from({ length: 250 }, () => addInk(page)),
      ...Array.from({ length: 250 }, () => addMark(page)),
    ];
    const board = newId();
    const messages = inMessages(ops, MAX_OPERATIONS, pack);
    expect(messages.flat()).toEqual(ops);
    expect(messages.length).toBeLessThan(12);
    for (const some of messages)
      expect(readClientMessage(pack({ kind: 'ops', board, ops: some }), 'student')).toEqual({
        ...{ kind: 'ops', board, ops: some },
      });
    expect(inMessages([], 10, pack)).toEqual([]);
  });

  it('says of what kind it is, and which operations are in it, without being built', () => {
    const ops = [addInk(newId()), addInk(newId())];
    const bytes = pack({ kind: 'ops', ops });
    expect(packedKind(bytes)).toBe('ops');
    expect(packedOperationIds(bytes, 100)).toEqual(ops.map(({ id }) => id));
    expect(packedOperationIds(bytes, 1)).toEqual([ops[0]!.id]);
    expect(packedKind(pack({ n: [1, { kind: 'no' }], kind: 'ping' }))).toBe('ping');
    for (const odd of [null, [], { kind: 3 }, { kind: 'x'.repeat(50) }, { ops: [1, { id: 'no' }] }])
      expect([packedKind(pack(odd)), packedOperationIds(pack(odd), 9)]).toEqual([null, []]);
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 80 }), (some) => {
        expect(packedOperationIds(some, 100).length).toBeLessThan(100);
        packedKind(some);
      }),
    );
  });
});
