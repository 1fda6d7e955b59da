import { boundForces } from '../boundForces.ts';
import {
  listed,
  ownerOf,
  RIBBON_SETTINGS,
  type DrawnAs,
  type Effect,
  type NumberDeclaration,
  type NumberSetting,
  type Place,
  type Ribbon,
  settingsByName,
  tableByName,
} from '../../document/index.ts';
import { type CompiledLayer, type Compiling } from '../compiled.ts';
import { newReading, NumberReader } from '../reader.ts';

/** A trail, ready to be laid: metres, seconds and shares. */
export interface BoundTrail {
  /** The layer that is drawn as trails, and the one whose particles lay them. */
  readonly id: string;
  readonly heads: string;
  readonly every: number;
  /** Seconds between two points at most; 0: none by time. */
  readonly seconds: number;
  readonly lasts: number;
  readonly drift: number;
  readonly goesToo: boolean;
  /** Whether points move after they were laid. */
  readonly moves: boolean;
  readonly most: number;
  /** How the points are stepped. */
  readonly points: CompiledLayer;
}

/** A number setting of a ribbon, as it stands when nothing drives it; `group` is the scale of the groups it stands in. */
export function ribbonNumber(ribbon: Ribbon, name: string, effect: Pick<Effect, 'measures'>, group: number): number {
  const table = tableByName<NumberDeclaration>(RIBBON_SETTINGS[ribbon.kind]);
  const settings = settingsByName<NumberSetting>(ribbon);
  return new NumberReader(settings[name]!, table[name]!, `ribbon/${name}`, effect, { group }).read(newReading());
}

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
  const drift = number('drift') / 100;
  const lasts = number('lasts');
  return {
    id,
    heads: heads.id,
    every: number('every'),
    seconds: number('seconds'),
    lasts,
    drift,
    goesToo: !ends.muted && ends.base.value === 'goes too',
    moves: drift !== 0 || doesFeel,
    most: Math.floor(number('most')),
    points: {
      ...heads,
      id: `${id}/trail`,
      layer: effect.layers.byId[id]!,
      forces: doesFeel ? boundForces(heads.id, heads.group, around.effect) : [],
      life: lasts,
      ride: 0,
      links: [],
      front: null,
      holds: false,
      beam: null,
    },
  };
}

/** What a beam needs beside its looks: its ends, and how fast it reaches out. */
export interface BoundBeam {
  readonly from: Place;
  readonly to: Place;
  /** Metres a second; 0: at once. */
  readonly speed: number;
}

export const boundBeam = (ribbon: DrawnAs, effect: Pick<Effect, 'measures'>, group: number): BoundBeam | null =>
  ribbon.kind === 'beam'
    ? { from: ribbon.from, to: ribbon.to, speed: ribbonNumber(ribbon, 'speed', effect, group) }
    : null;
