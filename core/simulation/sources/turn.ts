import { type Layer } from '../../document/index.ts';
import { RIGID_WORDS } from '../../maths/index.ts';
import { UNTURNED } from '../scene/orientation.ts';
import { Scene } from '../scene/scene.ts';
import type { NumberReader } from '../values/numberReader.ts';
import type { SourceReader } from './source.ts';

/**
 * Writes how the source of a layer is turned at a time, as a quaternion. Particles that stay with it are turned as it is, as
 * are those of a source that never moves; those that leave one that moves are not turned after it.
 */
export function sourceTurnInto(
  out: Float64Array,
  {
    layer,
    source,
    ride,
  }: { readonly layer: Layer; readonly source: SourceReader; readonly ride: NumberReader | null },
  scene: Scene,
  time: number,
): void {
  out.set(UNTURNED);
  if (
    !('place' in layer.source) ||
    !source.canBear ||
    !((ride?.isConstant && ride.low === 100) || scene.isStill(layer.source.place))
  )
    return;
  source.carrierInto(RIGID, 0, time, 0, 0, 0);
  for (let k = 0; k < 4; k++) out[k] = RIGID[k]!;
}
const RIGID = new Float64Array(RIGID_WORDS);
