import { existsSync, mkdirSync, writeFileSync } from 'node:fs';
import { FIGURES, makeFigure } from './figures/index.ts';
import { makeProp } from './props/glb.ts';
import { PROPS } from './props/meshes.ts';
import { DRAWINGS } from './props/drawings.ts';
import { marsh } from './props/marsh.ts';
import { mothBook } from './props/moth.ts';

/** Where the Fenlight kit's made files lie. */
export const KIT = new URL('./kit/', import.meta.url);

/** Names of the kit's files: one for each figure, prop and picture. */
export const KIT_FIGURES = FIGURES.map(({ name }) => `${name.toLowerCase()}.glb`);
export const KIT_PROPS = Object.keys(PROPS).map((name) => `${name}.glb`);
export const KIT_PICTURES = ['moth.png', 'marsh.png', ...Object.keys(DRAWINGS).map((name) => `${name}.png`)];

/** Makes the kit's files, unless they are there already. */
export async function makeKit(again = false): Promise<void> {
  mkdirSync(KIT, { recursive: true });
  const make = async (name: string, bytes: () => Promise<Uint8Array> | Uint8Array) => {
    const file = new URL(name, KIT);
    if (again || !existsSync(file)) writeFileSync(file, await bytes());
  };
  for (const [n, plan] of FIGURES.entries()) await make(KIT_FIGURES[n]!, () => makeFigure(plan));
  for (const [name, mesh] of Object.entries(PROPS)) await make(`${name}.glb`, () => makeProp(name, mesh()));
  await make('moth.png', mothBook);
  await make('marsh.png', marsh);
  for (const [name, drawing] of Object.entries(DRAWINGS)) await make(`${name}.png`, drawing);
}
