import { boundForces } from './forces.ts';
import { listed, ownerOf, type DrawnAs, type Effect, type Ribbon } from '../../document/index.ts';
import type { BoundTrail, CompiledLayer, BoundBeam } from './plan.ts';
import type { Compiling } from './surroundings.ts';
import { ribbonNumber } from '../looks/ribbonNumber.ts';

/** The trails of an effect, by the salt of the layers that show them; `compiled` are the layers with own particles. */
export function bindTrails(around: Compiling, compiled: readonly CompiledLayer[]): BoundTrail[] {
  const { effect } = around;
  return listed(effect.layers)
    .sort((a, b) => a.item.salt - b.item.salt || (a.id < b.id ? -1 : 1))
    .flatMap(({ id, item }) => {
      const { drawn } = item;
      const heads = compiled.find((layer) => layer.id === ownerOf(effect, id));
      return drawn.kind === 'trail' && heads ? [boundTrail(id, drawn, heads, around)] : [];
    });
}

function boundTrail(
  id: string,
  drawn: Extract<Ribbon, { kind: 'trail' }>,
  heads: CompiledLayer,
  around: Compiling,
): BoundTrail {
  const { effect } = around;
  const number = (name: string) => ribbonNumber(drawn, name, effect, heads.group.scale);
  const { feels, ends } = drawn.settings;
  const doesFeel = !feels.muted && feels.base.value === true;
  const drift = number('drift');
  const lasts = number('lasts');
  const { shown, tiers } = effect.quality;
  const fineness = tiers[shown].joints / 100;
  return {
    id,
    heads: heads.id,
    every: number('every'),
    seconds: number('seconds'),
    fineness,
    lasts,
    drift,
    goesToo: !ends.muted && ends.base.value === 'goes too',
    moves: !(drift.isConstant && drift.low === 0) || doesFeel,
    most: Math.floor(number('most').atDials(around.dials)),
    points: {
      ...heads,
      id: `${id}/trail`,
      layer: effect.layers.byId[id]!,
      forces: doesFeel ? boundForces(heads.id, heads.group, around.effect) : [],
      life: lasts.isLevel ? lasts.atDials(around.dials) : null,
      ride: null,
      links: [],
      front: null,
      holds: false,
      beam: null,
    },
  };
}

export const boundBeam = (ribbon: DrawnAs, effect: Pick<Effect, 'measures'>, group: number): BoundBeam | null =>
  ribbon.kind === 'beam'
    ? { from: ribbon.from, to: ribbon.to, speed: ribbonNumber(ribbon, 'speed', effect, group) }
    : null;
