/* Compresses the built site once, so that the server never has to. */
import { readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';

const SMALL = 1024;

function walk(folder) {
  for (const name of readdirSync(folder)) {
    const path = join(folder, name);
    if (statSync(path).isDirectory()) walk(path);
    else if (/\.(m?js|css|svg|json|wasm)$/.test(name) && statSync(path).size > SMALL) {
      const bytes = readFileSync(path);
      const quality = { [constants.BROTLI_PARAM_QUALITY]: bytes.length > 500_000 ? 9 : 11 };
      writeFileSync(`${path}.br`, brotliCompressSync(bytes, { params: quality }));
      writeFileSync(`${path}.gz`, gzipSync(bytes, { level: 9 }));
    }
  }
}

walk(process.argv[2]);
