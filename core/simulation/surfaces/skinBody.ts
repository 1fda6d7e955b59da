import { inflated } from '../../geometry/index.ts';
import { MeshBody, skinPoses } from './meshBody.ts';
import { StageThing } from '../scene/stageThing.ts';

/** The skin of a thing on the stage, as something to be met. */
export function bodyOfThing(thing: StageThing, offset = 0): MeshBody {
  const { positions, indices } = thing.rig.mesh;
  return new MeshBody(skinPoses(thing, inflated(positions, indices, offset)));
}
