import { diff, listed, shownLayers, type Effect, type Id, type Layer } from '../document/index.ts';
import { lifeSamples } from './lifeSamples.ts';
import type { Problem } from './mend.ts';
import { layerMend } from './numbers.ts';

const isSolid = ({ drawn, settings }: Layer) =>
  drawn.kind === 'mesh' && ['solid', 'holes'].includes(settings['appearance.blend'].base.value);
const meshesOf = ({ drawn }: Layer) =>
  drawn.kind === 'mesh' ? new Set(listed(drawn.meshes).map(({ item }) => item.asset)) : new Set<string>();
const stands = ({ settings }: Layer) => {
  const { base } = settings['births.standing'];
  return base.kind === 'fixed' && base.value > 0;
};
/** Sizes nearer to each other than this share stand in each other's surface. */
const SAME_SIZE = 0.004;

/** What turns a mesh or stretches it where it stands: turned by it, two may be halves of one. */
const TURNED = [
  'life.tilt',
  'life.angle',
  'life.turning',
  'life.axle',
  'life.width',
  'life.height',
  'life.depth',
] as const;
const areTurnedAlike = (a: Layer, b: Layer) =>
  TURNED.every((name) => diff(a.settings[name], b.settings[name]).length === 0) &&
  diff(a.settings['appearance.facing'], b.settings['appearance.facing']).length === 0;

/** Two layers whose solid meshes stand in the same place flicker through each other: told with the one behind. */
export function flickerProblems(effect: Effect, layerId: Id): Problem[] {
  const layer = effect.layers.byId[layerId]!;
  const shown = shownLayers(effect);
  if (!isSolid(layer) || !stands(layer) || !shown.has(layerId)) return [];
  const own = meshesOf(layer);
  const sizeOf = (id: Id) => Math.max(...lifeSamples(effect, id, 8).map(({ size }) => size));
  const before = effect.layers.order.slice(0, effect.layers.order.indexOf(layerId));
  return before.flatMap((otherId): Problem[] => {
    const other = effect.layers.byId[otherId]!;
    if (!isSolid(other) || !stands(other) || !shown.has(otherId)) return [];
    const isSame =
      [...meshesOf(other)].some((asset) => own.has(asset)) &&
      diff(other.source, layer.source).length === 0 &&
      other.parent === layer.parent &&
      areTurnedAlike(other, layer) &&
      diff(other.settings['appearance.nudge'], layer.settings['appearance.nudge']).length === 0;
    const [a, b] = [sizeOf(otherId), sizeOf(layerId)];
    if (!isSame || Math.abs(a - b) > SAME_SIZE * Math.max(a, b)) return [];
    return [
      {
        id: `flicker/${otherId}`,
        sentence: `${layer.name} and ${other.name} are the same solid mesh in the same place: they flicker through each other.`,
        where: 'appearance',
        mend: layerMend(layerId, `Nudge ${layer.name} 2 cm behind`, (target) => {
          target.settings['appearance.nudge'].base = { kind: 'fixed', value: -0.02 };
        }),
      },
    ];
  });
}
