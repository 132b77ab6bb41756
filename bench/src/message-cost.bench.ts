import { encodeStroke, MAX_MESSAGE_BYTES, MAX_OPERATIONS, newId, pack } from '@cuaderno/core';
import type { Role } from '@cuaderno/core';
import { addInk, addMark, handwriting } from '@cuaderno/core/testing';
import { readMessage } from '../../apps/server/dist/live/message-reader.js';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { result } from './result.js';
import type { Result } from './result.js';

const BOARD = newId();
/** What reading the worst message may cost, in ms and MB. */
const MOST_MS = 2;
const MOST_MB = 5;
const RUNS = 60;

setFlagsFromString('--expose-gc');
const gc = runInNewContext('gc') as () => void;

function nested(head: readonly number[], bytes: number): Uint8Array {
  return Uint8Array.from({ length: bytes }, (_, i) => head[i % head.length]!);
}

/** A message of operations of which each is as many values as fit. */
function operations(op: (i: number) => unknown, count = MAX_OPERATIONS): Uint8Array {
  return pack({ kind: 'ops', board: BOARD, ops: Array.from({ length: count }, (_, i) => op(i)) });
}

/** Messages that cost as much as any that can be sent: hostile ones, and honest ones at their limits. */
function worst(values: number, text: number): [string, Uint8Array][] {
  const page = newId();
  const long = encodeStroke(handwriting(4, { count: 3000 }));
  const ids = Array.from({ length: Math.min(5000, values - 20) }, () => newId());
  const keys = Object.fromEntries(Array.from({ length: values / 2 - 20 }, (_, i) => [`k${i}`, i]));
  const words = 'ß'.repeat(text / 2 - 50);
  return [
    ['lists of 16,383 in lists', nested([0xdc, 0x3f, 0xff], 102_000)],
    ['lists of 4 G in lists', nested([0xdd, 0xff, 0xff, 0xff, 0xff], MAX_MESSAGE_BYTES)],
    [
      'empty maps',
      pack({ kind: 'ops', board: BOARD, ops: Array.from({ length: values - 10 }, () => ({})) }),
    ],
    ['one map of all its keys', pack({ kind: 'ops', board: BOARD, ops: [keys] })],
    ['one word as long as can be', pack({ kind: 'ops', board: BOARD, ops: [words] })],
    ['words as long as can be', pack({ kind: 'ops', board: BOARD, ops: [{ kind: words }] })],
    [
      'a million numbers',
      pack({ kind: 'ops', board: BOARD, ops: Array.from({ length: 990_000 }, () => 1) }),
    ],
    [
      'as many ids as can be',
      operations(() => ({ id: newId(), kind: 'items.remove', page, items: ids }), 1),
    ],
    [
      'as many marks as can be',
      operations(() => addMark(page), Math.min(MAX_OPERATIONS, values / 32)),
    ],
    [
      'as many lines of 9 kB as can be',
      operations(() => ({ ...addInk(page), ink: long.subarray(0, 9000) })),
    ],
    [
      'pages that are none',
      operations(() => ({ id: newId(), kind: 'pages.add', pages: Array(values - 20).fill({}) }), 1),
    ],
    [
      'a change of all traits',
      operations(
        () => ({
          ...{ id: newId(), kind: 'item.change', page, item: page, from: {} },
          to: {
            frame: {},
            order: 'a0',
            text: [],
            lines: [],
            points: [[0, 0]],
            outline: {},
            fill: 1,
          },
        }),
        Math.min(MAX_OPERATIONS, values / 44),
      ),
    ],
  ];
}

/** What the message that costs most costs the server until it is taken or turned away, in ms and in MB. */
export function measure(): Result[] {
  const student = costOf('student', worst(1_600, 60_000));
  const tutor = costOf('tutor', worst(3_000, 110_000));
  return [
    result('message-cost-memory', 'MB', Math.max(student.mb, tutor.mb), 1, MOST_MB),
    result('message-cost', 'ms', Math.max(student.ms, tutor.ms), 1, MOST_MS),
  ];
}

function costOf(role: Role, messages: [string, Uint8Array][]): { ms: number; mb: number } {
  let [ms, mb] = [0, 0];
  for (const [what, bytes] of messages) {
    const read = (): string => {
      try {
        readMessage(bytes, role);
        return 'taken';
      } catch (error) {
        return (error as { reason?: string }).reason ?? String(error);
      }
    };
    for (let i = 0; i < 20; i++) read();
    const times: number[] = [];
    for (let i = 0; i < RUNS; i++) {
      const begun = performance.now();
      read();
      times.push(performance.now() - begun);
    }
    gc();
    const before = used();
    const said = read();
    const grown = (used() - before) / 1e6;
    // What the machine does besides is no cost of the message.
    const typical = times.sort((a, b) => a - b)[Math.floor(RUNS / 5)]!;
    console.error(
      `${role}, ${what}: ${bytes.length} bytes, ${said}, ${typical.toFixed(2)} ms, ${grown.toFixed(2)} MB`,
    );
    ms = Math.max(ms, typical);
    mb = Math.max(mb, grown);
  }
  return { ms, mb };
}

function used(): number {
  const { heapUsed, external } = process.memoryUsage();
  return heapUsed + external;
}
