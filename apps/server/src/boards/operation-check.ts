import { MAX_OPERATIONS, Operation, upgradeStored } from '@cuaderno/core';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { isMainThread } from 'node:worker_threads';
import * as z from 'zod';

/** Whether a value is as a schema has it, found out by the first thing that isn't. */
export type Check = (value: unknown) => boolean;

const ajv = new Ajv2020({ strict: false, unicodeRegExp: false });

/**
 * By each kind, what stops at the first thing that isn't as it should be: Zod names every fault that it finds, and ten
 * thousand faults take long to name. What only code can check (bytes, tints, long lists of ids) is left to Zod.
 *
 * A server makes all of them as it starts, so that nobody who sends the first of a kind waits. A thread of its own makes
 * those that it meets: all of them take longer than most of its work.
 */
export function checksByKind(options: readonly z.ZodObject[]): (value: unknown) => boolean {
  const schemas = new Map(
    options.map((schema) => [
      (schema.shape['kind'] as z.ZodLiteral).def.values[0] as unknown,
      schema,
    ]),
  );
  const checks = new Map<unknown, Check>();
  const checkOf = (kind: unknown): Check | undefined => {
    const known = checks.get(kind);
    const schema = schemas.get(kind);
    if (known || !schema) return known;
    const check = ajv.compile(described(schema)) as Check;
    checks.set(kind, check);
    return check;
  };
  if (isMainThread) for (const kind of schemas.keys()) checkOf(kind);
  return (value) => checkOf(kindOf(value))?.(value) ?? false;
}

/** Longest description, in characters, in which what comes twice is written twice: quicker to check, and larger. */
const LONG = 8_000;

type Described = Parameters<NonNullable<z.core.ToJSONSchemaParams['override']>>[0];

function described(schema: z.ZodType): object {
  const as = {
    ...({ unrepresentable: 'any', io: 'input' } as const),
    // What code checks may say of itself how it looks; to look at that here, too, would cost twice.
    override: ({ zodSchema, jsonSchema }: Described): void => {
      if (zodSchema._zod.def.type !== 'custom') return;
      for (const key of Object.keys(jsonSchema)) delete jsonSchema[key as keyof typeof jsonSchema];
    },
  };
  const plain = z.toJSONSchema(schema, as);
  return JSON.stringify(plain).length < LONG
    ? plain
    : z.toJSONSchema(schema, { ...as, reused: 'ref' });
}

/** What a message or an operation says it is. */
export function kindOf(value: unknown): unknown {
  return typeof value === 'object' && value !== null
    ? (value as { kind?: unknown }).kind
    : undefined;
}

const fitsOperation = checksByKind(Operation.options);

/** Whether these may be operations of one message. */
export function fitOperations(ops: unknown): boolean {
  return Array.isArray(ops) && ops.length <= MAX_OPERATIONS && ops.every(fitsOperation);
}

/**
 * An operation as it was stored, in the words of now, and checked as if it came anew; `null` for what is none.
 * @param version in which it was stored. Throws `StoredVersionError` for one that isn't known here
 */
export function readOperation(stored: unknown, version: number): Operation | null {
  const value = upgradeStored('operation', stored, version);
  return fitsOperation(value) ? (Operation.safeParse(value).data ?? null) : null;
}
