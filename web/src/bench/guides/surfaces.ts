import { type NumberSetting, type Surface, settingsByName } from '@jinx/core/document';
import type { Rig } from '@jinx/core/geometry';
import type { Guide } from '@jinx/stage';
import { arrow, ballLines, boxLines, ORIGIN, Y } from './lines';
import type { Matrices } from './matrices';

/** Meshes of the project, by the hash of their asset. */
export type Meshes = ReadonlyMap<string, Rig>;

/** Most lines drawn of one mesh: enough to see what it is. */
const MOST_EDGES = 3000;
const GROUND_SIDE = 2;

const sizeOf = (surface: Surface, name: string, matrices: Matrices): number =>
  matrices.now(settingsByName<NumberSetting>(surface)[name]!);

/** The edges of a mesh, each once; of a fine mesh every so-and-so-manyth. */
function meshLines({ mesh }: Rig, times: readonly number[]): number[] {
  const { indices, positions } = mesh;
  const every = Math.max(1, Math.ceil(indices.length / 2 / MOST_EDGES));
  const lines: number[] = [];
  let edge = 0;
  for (let i = 0; i < indices.length; i++) {
    const [a, b] = [indices[i]!, indices[i % 3 === 2 ? i - 2 : i + 1]!];
    if (a > b || edge++ % every > 0) continue;
    for (const vertex of [a, b])
      for (let axis = 0; axis < 3; axis++) lines.push(positions[vertex * 3 + axis]! * times[axis]!);
  }
  return lines;
}

function groundLines(): number[] {
  const lines = [...arrow(ORIGIN, Y.map((x) => x * 0.3) as never)];
  for (let k = -2; k <= 2; k++) {
    const at = (k / 2) * GROUND_SIDE;
    lines.push(at, 0, -GROUND_SIDE, at, 0, GROUND_SIDE, -GROUND_SIDE, 0, at, GROUND_SIDE, 0, at);
  }
  return lines;
}

/** What is met, drawn where it is. A thing on the stage and the mesh of a layer are seen already. */
export function surfaceGuides(surface: Surface, matrices: Matrices, meshes: Meshes): Guide[] {
  if (surface.muted || surface.kind === 'thing' || surface.kind === 'layer') return [];
  const sizes = () =>
    ['wide', 'tall', 'deep'].map((name) => sizeOf(surface, name, matrices)) as [number, number, number];
  const lines = () => {
    switch (surface.kind) {
      case 'ground':
        return groundLines();
      case 'sphere':
        return ballLines(sizeOf(surface, 'radius', matrices));
      case 'box':
        return boxLines(...sizes());
      case 'mesh': {
        const rig = meshes.get(surface.asset);
        return rig ? meshLines(rig, sizes()) : [];
      }
    }
  };
  return [{ matrix: matrices.of(surface.place), points: matrices.hung(surface.place)(lines()), tone: 'surface' }];
}
