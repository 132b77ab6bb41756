import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { describeProtocol } from './describe.js';

describe('docs/protocol.md', () => {
  it('says what the schemas say: run `npm run protocol` after changing them', () => {
    const path = fileURLToPath(new URL('../../../../docs/protocol.md', import.meta.url));
    expect(readFileSync(path, 'utf8')).toBe(describeProtocol());
  });
});
