import { readFileSync } from 'node:fs';
import { importGlb } from '@jinx/core/formats';
import type { Rig } from '@jinx/core/geometry';
import { KIT, KIT_FIGURES, KIT_PICTURES, KIT_PROPS, makeKit, type KitAssets } from '../index.ts';

/** The kit with its rigs, under hashes that only number its files: effects made of it have the same assets on every machine. */
export async function kitForTests(): Promise<{ kit: KitAssets; rigs: ReadonlyMap<string, Rig> }> {
  await makeKit();
  const files = [...KIT_FIGURES, ...KIT_PROPS, ...KIT_PICTURES];
  const hashOf = (n: number) => n.toString(16).padStart(64, '0');
  const kit = Object.fromEntries(files.map((file, n) => [file.replace(/\.\w+$/, ''), hashOf(n)]));
  const rigs = new Map<string, Rig>();
  for (const [n, file] of files.entries())
    if (file.endsWith('.glb'))
      rigs.set(hashOf(n), await importGlb(new Uint8Array(readFileSync(new URL(file, KIT))), file));
  return { kit, rigs };
}
