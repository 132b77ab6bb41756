import fc from 'fast-check';
import { MAX_OPERATIONS } from '../features/index.js';
import { PersonName } from '../people/index.js';
import type { ClientMessage } from '../features/index.js';
import { newId } from '../id/index.js';
import { addInk } from '../testing/index.js';
import { PIECE_MARK } from './live-piece.js';
import { MessageError, pack, readClientMessage } from './index.js';

describe('messages', () => {
  const board = newId();

  it('arrive as they were sent, ink and all', () => {
    const message: ClientMessage = {
      kind: 'ops',
      board,
      ops: [addInk(newId()), addInk(newId(), 2)],
    };
    expect(readClientMessage(pack(message))).toEqual(message);
  });

  it('may be JSON text where no ink is in them', () => {
    expect(readClientMessage('{"kind":"ping","n":3}')).toEqual({ kind: 'ping', n: 3 });
  });

  const refused = (data: Uint8Array | string): string => {
    try {
      readClientMessage(data);
      return 'taken';
    } catch (error) {
      return error instanceof MessageError ? error.reason : String(error);
    }
  };

  it('are refused when they can’t be read', () => {
    expect(refused('hello?')).toBe('not-readable');
    expect(refused(Uint8Array.of(0xc0))).toBe('wrong-shape');
    expect(refused(new Uint8Array())).toBe('not-readable');
  });

  it('are refused when they have the wrong shape', () => {
    for (const wrong of [
      null,
      { kind: 'dance' },
      { kind: 'ping' },
      { kind: 'ops', board, ops: [] },
      {
        kind: 'ops',
        board,
        ops: Array.from({ length: MAX_OPERATIONS + 1 }, () => addInk(newId())),
      },
      { kind: 'ops', board, ops: [{ ...addInk(newId()), id: 'short' }] },
      { kind: 'ops', board, ops: [{ ...addInk(newId()), ink: 'text' }] },
      { kind: 'trust', who: 'everyone', trust: 'write' },
    ])
      expect(refused(pack(wrong)))
        .withContext(JSON.stringify(wrong)?.slice(0, 60))
        .toBe('wrong-shape');
  });

  it('never bring the reader down, whatever the bytes', () => {
    fc.assert(
      // What begins as a piece of a stroke is one, and is looked at by who draws it: see `live-piece.spec.ts`.
      fc.property(fc.uint8Array({ maxLength: 200 }), (bytes) =>
        bytes[0] === PIECE_MARK ? refused(bytes) !== 'not-readable' : refused(bytes) !== 'taken',
      ),
      { numRuns: 1000 },
    );
  });
});

describe('a first name', () => {
  const name = (text: string) => PersonName.safeParse(text);

  it('may be of any script', () => {
    for (const text of [
      'Zoë',
      'Ольга',
      '李小龍',
      'अनिता',
      'ياسمين',
      'Nguyễn',
      '👩‍🚀 Ida',
      'O’Neill-Łukasz',
    ])
      expect(name(text).data).withContext(text).toBe(text.normalize('NFC'));
  });

  it('is the same name however its accents were typed', () => {
    expect(name('Zoe\u0308').data).toBe('Zo\u00eb');
  });

  it('loses what nobody sees, so that no name turns its neighbours round', () => {
    expect(name('  Ida\u202e\u0000\n Solheim ').data).toBe('Ida Solheim');
    expect(name('\u202e\u200f').success).toBeFalse();
  });

  it('is not empty and not a book', () => {
    expect(name('   ').error?.issues[0]?.message).toBe('Please write your first name.');
    expect(name('x'.repeat(10_000)).error?.issues[0]?.message).toContain('too long');
    expect(name('x'.repeat(61)).success).toBeFalse();
    expect(name('👩‍🚀'.repeat(15)).success).toBeTrue();
  });

  it('keeps markup as the letters it is', () => {
    expect(name('<b>Ida</b>').data).toBe('<b>Ida</b>');
  });
});
