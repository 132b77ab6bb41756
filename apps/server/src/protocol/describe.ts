import {
  ClientMessage,
  CLOSE,
  MAX_MESSAGE_BYTES,
  MAX_OPERATIONS,
  Operation,
  PROTOCOL,
  ServerMessage,
} from '@cuaderno/core';
import * as z from 'zod';

interface Shape {
  type?: string | string[];
  const?: unknown;
  enum?: unknown[];
  properties?: Record<string, Shape>;
  required?: string[];
  items?: Shape;
  prefixItems?: Shape[];
  anyOf?: Shape[];
  oneOf?: Shape[];
  pattern?: string;
  maxItems?: number;
}

const ID = '^[A-Za-z0-9_-]{12}$';

/** A field's type in a few words. */
function words(shape: Shape, depth = 0): string {
  if (shape.const !== undefined) return `\`${JSON.stringify(shape.const)}\``;
  if (shape.enum) return shape.enum.map((value) => `\`${JSON.stringify(value)}\``).join(' or ');
  const options = shape.anyOf ?? shape.oneOf;
  if (options) {
    if (options.some(({ properties }) => properties?.['kind']) && options.length > 5)
      return 'operation';
    return options.map((option) => words(option, depth)).join(' or ');
  }
  if (shape.type === 'array') {
    const of = shape.prefixItems?.length ? 'numbers' : `list of ${words(shape.items ?? {}, depth)}`;
    return shape.maxItems ? `${of}, at most ${shape.maxItems}` : of;
  }
  if (shape.type === 'object' && shape.properties) {
    if (depth > 1) return 'object';
    const inner = Object.entries(shape.properties).map(
      ([name, field]) => `${name}: ${words(field, depth + 1)}`,
    );
    return `{ ${inner.join(', ')} }`;
  }
  if (shape.pattern === ID) return 'id';
  if (!shape.type) return 'bytes';
  return [shape.type].flat().join(' or ');
}

function table(schema: z.ZodType): string {
  const { anyOf, oneOf } = z.toJSONSchema(schema, { unrepresentable: 'any', io: 'input' }) as Shape;
  return (anyOf ?? oneOf ?? [])
    .map((shape) => {
      const { kind, ...fields } = shape.properties!;
      const rows = Object.entries(fields).map(
        ([name, field]) =>
          `| ${name} | ${words(field).replaceAll('|', '\\|')} | ${shape.required?.includes(name) ? 'yes' : 'no'} |`,
      );
      const head = `### \`${String(kind!.const)}\`\n`;
      if (rows.length === 0) return `${head}\nNo fields.\n`;
      return `${head}\n| field | type | always |\n| --- | --- | --- |\n${rows.join('\n')}\n`;
    })
    .join('\n');
}

/** docs/protocol.md, made from the schemas that both ends check messages with. */
export function describeProtocol(): string {
  return `# Live protocol, version ${PROTOCOL}

Made from the Zod schemas in \`packages/core/src/wire\` and \`packages/core/src/ops\` by
\`npm run protocol\`; a test fails where this page and the schemas differ. Change the schemas, not
this page.

Messages travel over one WebSocket a window: \`/live/boards/ID\` for a tutor, with the session's
cookie, and \`/live/lesson\` for a student, with the pass's cookie. Each is one binary frame of
MessagePack; JSON text is understood for short messages that have no bytes in them. A browser says
\`hello\` first, within ten seconds, and is answered with \`welcome\`, and a \`board.opened\` for each board that it wants; what it had missed of one follows as \`applied\`. An operation
is on disk before it is \`confirmed\` to its writer and \`applied\` for the others. \`live.ink\` and
\`live.end\` may be lost and are never stored.

One kind of message isn't MessagePack: \`live.more\`, the next points of a stroke, sixty a second. It begins
with the byte \`c1\`, which no MessagePack begins with; from the server the stroke's number follows as a
variable-length integer of two bytes at most; the rest is the piece, coded as
\`packages/core/src/wire/live-piece.ts\` says. Where several people write, what the server tells within a few
milliseconds may come as one: an array of byte strings, each a message as it would come alone.

What a message may hold is looked at before it is read, by its kind: see
\`packages/core/src/wire/message-limits.ts\`. No field that isn't named here is taken. A stroke under way is known by its
number \`n\` to everyone but its writer; \`live.end\` says which item it is by then.

At most ${MAX_OPERATIONS} operations and ${MAX_MESSAGE_BYTES.toLocaleString('en')} bytes a message. What can't be taken is answered with a
\`problem\` (RFC 9457), and the connection goes on; a connection that is ended for good has a close
code: ${CLOSE.notIn} not in this lesson, ${CLOSE.door} sent out, ${CLOSE.over} the lesson is over, ${CLOSE.old} another protocol, ${CLOSE.flood} a flood. After
${CLOSE.again} or any other end a browser comes back by itself and sends again what is not confirmed.

Ids are 12 letters, digits, \`-\` or \`_\`, made by the one who makes the thing. Bytes named \`ink\` are a
whole stroke and \`points\` some of its points, coded as \`packages/core/src/ink/codec.ts\` says.

## From the browser

${table(ClientMessage)}
## From the server

${table(ServerMessage)}
## Operations

${table(Operation)}`;
}
