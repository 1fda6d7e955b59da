import { existsSync, mkdirSync, writeFileSync } from 'node:fs';
import { makeSedge } from './sedge/index.ts';

/** Where the Fenlight kit's made files lie. */
export const KIT = new URL('./kit/', import.meta.url);

/** Makes the kit's files, unless they are there already. */
export async function makeKit(again = false): Promise<void> {
  const file = new URL('sedge.glb', KIT);
  if (existsSync(file) && !again) return;
  mkdirSync(KIT, { recursive: true });
  writeFileSync(file, await makeSedge());
}
