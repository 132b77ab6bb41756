import { boardJsonSchema } from '@cuaderno/formats/board-file';
import { writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { describeProtocol } from './describe.js';

/* Writes what is documented from the schemas that read it. */

const docs = (name: string): string =>
  fileURLToPath(new URL(`../../../../docs/${name}`, import.meta.url));

writeFileSync(docs('protocol.md'), describeProtocol());
writeFileSync(docs('board-file.schema.json'), `${JSON.stringify(boardJsonSchema(), null, 2)}\n`);
