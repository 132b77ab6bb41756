import { writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { describeProtocol } from './describe.js';

writeFileSync(
  fileURLToPath(new URL('../../../../docs/protocol.md', import.meta.url)),
  describeProtocol(),
);
