import { BonesSource } from './bones.ts';
import { DrawnMeshSource } from './drawnMesh.ts';
import { HitsSource } from './hits.ts';
import { MeshSource } from './mesh.ts';
import { ParticlesSource } from './particles.ts';
import { ShapeSource } from './shapeSource.ts';
import type { SourceReader, SourceSurroundings } from './source.ts';

/** Makes the reader of a layer's source. */
export function sourceReader(around: SourceSurroundings): SourceReader {
  switch (around.layer.source.kind) {
    case 'mesh':
      return new MeshSource(around);
    case 'drawn':
      return new DrawnMeshSource(around);
    case 'particles':
      return new ParticlesSource(around);
    case 'hits':
      return new HitsSource(around);
    case 'bones':
      return new BonesSource(around);
    default:
      return new ShapeSource(around);
  }
}
