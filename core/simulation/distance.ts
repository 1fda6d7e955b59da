import { listed, ownerOf, type Effect, type Id, type Setting } from '../document/index.ts';
import type { Population } from './population.ts';

const reads = (settings: object): boolean =>
  Object.values(settings as Record<string, Setting>).some(
    ({ muted, shapers }) =>
      !muted && listed(shapers).some(({ item }) => item.reads.kind === 'distance' && !item.muted),
  );

/** Whether anything about a layer's particles is shaped by how far they have travelled: then that is kept. */
export function keepsDistance(effect: Effect, id: Id): boolean {
  const own = effect.layers.byId[id]!;
  const forces = [
    ...listed(own.forces).map(({ item }) => item),
    ...listed(effect.forces)
      .filter(({ item }) => item.layers.length === 0 || item.layers.includes(id))
      .map(({ item }) => item.force),
  ];
  return (
    forces.some(({ settings }) => reads(settings)) ||
    listed(effect.layers).some(
      ({ id: other, item }) =>
        ownerOf(effect, other) === id &&
        (reads(item.settings) ||
          reads(item.channels.byId) ||
          (item.drawn.kind !== 'sprite' && reads(item.drawn.settings))),
    )
  );
}

/** Adds the straight way that each of a layer's particles has come in a step. */
export function addDistance({ from, position, travelled, count, flags }: Population, held: number): void {
  const [fx, fy, fz] = from;
  const [px, py, pz] = position;
  for (let i = 0; i < count; i++) {
    if (flags[i]! & held) continue;
    const [x, y, z] = [px[i]! - fx[i]!, py[i]! - fy[i]!, pz[i]! - fz[i]!];
    travelled[i]! += Math.sqrt(x * x + y * y + z * z);
  }
}
