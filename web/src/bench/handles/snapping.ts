import type { StageRigs } from '@jinx/core/checks';
import { listed, placesOf, type Effect, type Id, type NamedPlace } from '@jinx/core/document';
import { restExtent } from '@jinx/core/geometry';
import { Vector3 } from 'three';
import { knobsOf, type Knob } from './knobs';
import type { Picture } from './picture';
import type { Standing } from './standing';

/** Pixels within which a handle that is pulled with Ctrl goes to something. */
const NEAR_PIXELS = 12;

/** Whether a size reaches from the middle to a border. */
const isBorder = ({ at, way, value, isAngle }: Knob): boolean =>
  !isAngle && at.every((metres, axis) => Math.abs(metres - way[axis]! * value) < 1e-9);

/** What handles snap to: middles and borders of the other layers' sources, and feet and tops of what stands on the stage. */
export function snapPoints(
  effect: Effect,
  layerId: Id,
  standingOf: (place: Pick<NamedPlace, 'place' | 'group'>) => Standing | null,
  rigs: StageRigs,
): Vector3[] {
  const ofLayers = effect.layers.order
    .filter((id) => id !== layerId)
    .flatMap((id) =>
      placesOf(effect, id)
        .filter(({ address, place }) => address.kind === 'source' && place.kind !== 'dial')
        .flatMap((place) => {
          const at = standingOf(place);
          const borders = knobsOf(effect, id, place.address).filter(isBorder);
          return at ? [at.origin, ...borders.map((knob) => at.inner(knob.at))] : [];
        }),
    );
  const ofThings = listed(effect.stage.things).flatMap(({ id, item }) => {
    const rig = rigs.get(id);
    const feet = new Vector3(...item.at);
    if (!rig) return [feet];
    const tall = restExtent(rig.mesh.positions).high[1] * item.scale;
    return [feet, feet.clone().add(new Vector3(0, tall, 0))];
  });
  return [...ofLayers, ...ofThings];
}

/** The point that is seen closest to a place; null where none is close. */
export function nearestSeen(points: readonly Vector3[], place: Vector3, picture: Picture): Vector3 | null {
  const at = picture.spot(place);
  let nearest: Vector3 | null = null;
  let least = NEAR_PIXELS;
  for (const point of points) {
    const { x, y, isAhead } = picture.spot(point);
    const away = Math.hypot(x - at.x, y - at.y);
    if (!isAhead || away > least) continue;
    [nearest, least] = [point, away];
  }
  return nearest;
}
