import { joined } from './joined.ts';

/** Bytes compressed as zlib does (RFC 1950), by the engine's own code: four times as fast as in JavaScript. */
export async function deflate(bytes: Uint8Array<ArrayBuffer>): Promise<Uint8Array<ArrayBuffer>> {
  const { writable, readable } = new CompressionStream('deflate');
  const writer = writable.getWriter();
  const written = writer.write(bytes).then(() => writer.close());
  const pieces: Uint8Array[] = [];
  const reader = readable.getReader();
  for (let next = await reader.read(); !next.done; next = await reader.read()) pieces.push(next.value!);
  await written;
  return joined(...pieces);
}
