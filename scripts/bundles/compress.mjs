// Lays beside what is served a compressed copy, which is sent in its place: `node scripts/bundles/compress.mjs web/dist`.
import { readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { brotliCompressSync, constants } from 'node:zlib';

/** Kinds of files that become smaller. */
const KINDS = /\.(js|css|html|svg|wasm|json|txt)$/;
/** Below so many bytes it is of no use. */
const LEAST = 2048;
/** As good as the best but for a few percent, in a tenth of the time. */
const QUALITY = 9;

const [folder] = process.argv.slice(2);
for (const name of readdirSync(folder, { recursive: true })) {
  const file = path.join(folder, name);
  if (file.endsWith('.br')) rmSync(file);
  else if (KINDS.test(file) && statSync(file).size >= LEAST)
    writeFileSync(
      `${file}.br`,
      brotliCompressSync(readFileSync(file), { params: { [constants.BROTLI_PARAM_QUALITY]: QUALITY } }),
    );
}
