import { existsSync, mkdirSync, writeFileSync } from 'node:fs';
import { FIGURES, makeFigure } from './figures/index.ts';

/** Where the Fenlight kit's made files lie. */
export const KIT = new URL('./kit/', import.meta.url);

/** Names of the kit's files: one for each figure. */
export const KIT_FIGURES = FIGURES.map(({ name }) => `${name.toLowerCase()}.glb`);

/** Makes the kit's files, unless they are there already. */
export async function makeKit(again = false): Promise<void> {
  mkdirSync(KIT, { recursive: true });
  for (const [n, plan] of FIGURES.entries()) {
    const file = new URL(KIT_FIGURES[n]!, KIT);
    if (again || !existsSync(file)) writeFileSync(file, await makeFigure(plan));
  }
}
