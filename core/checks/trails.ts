import {
  forcesOn,
  RIBBON_SETTINGS,
  setWidthAlong,
  type Effect,
  type Id,
  type NumberSetting,
} from '../document/index.ts';
import { newReading, NumberReader } from '../simulation/index.ts';
import type { Problem } from './mend.ts';
import { layerMend, middleOf, mostOf, said } from './numbers.ts';

/** Points along a trail below which its bends are seen as corners, and how many a mend lays. */
const FEWEST = 5;
const ENOUGH = 16;
/** Width at its tail, in percent, above which a trail is seen to end bluntly. */
const BLUNT = 30;

/** How fast a layer's particles go by what is set: by their launch, or by an orbit that carries them. 0 where forces alone move them. */
function knownSpeed(effect: Effect, layerId: Id): number {
  const launch = Math.abs(middleOf(effect.layers.byId[layerId]!.settings['motion.speed'], effect));
  const carried = forcesOn(effect, layerId).flatMap(({ item }) =>
    item.kind === 'orbit' && !item.muted ? [Math.abs(middleOf(item.settings.speed, effect))] : [],
  );
  return Math.max(launch, ...carried);
}

/** How wide a trail is where it ends, percent. */
const widthAtTail = (width: NumberSetting, effect: Effect): number =>
  new NumberReader(width, RIBBON_SETTINGS.trail.width, 'ribbon/width', effect).read({
    ...newReading(),
    age: 1,
    along: 1,
  });

/** What is wrong with a layer's trails: too few points to be smooth, more than there is room for, a blunt end. */
export function trailProblems(effect: Effect, layerId: Id): Problem[] {
  const layer = effect.layers.byId[layerId]!;
  const { drawn, name } = layer;
  if (drawn.kind !== 'trail') return [];
  const { every, seconds, lasts, width, most } = drawn.settings;
  const long = mostOf(lasts, effect);
  const speed = knownSpeed(effect, layerId);
  const byWay = (speed * long) / Math.max(0.002, mostOf(every, effect));
  const byTime = mostOf(seconds, effect) > 0 ? long / mostOf(seconds, effect) : 0;
  const points = Math.max(byWay, byTime);
  const found: Problem[] = [];
  const finer = Math.max(0.002, Number(((speed * long) / ENOUGH).toPrecision(2)));
  if (speed > 0 && points < FEWEST)
    found.push({
      id: 'coarse',
      sentence: `${name}’s trail is coarse: ${said(points)} points lie along ${said(speed * long)} m.`,
      severity: 'doubtful',
      where: 'appearance',
      measure: points,
      mend: layerMend(layerId, `Lay a point every ${said(finer * 100)} cm`, (own) => {
        if (own.drawn.kind === 'trail') own.drawn.settings.every.base = { kind: 'fixed', value: finer };
      }),
    });
  const living =
    middleOf(layer.settings['births.rate'], effect) * middleOf(layer.settings['births.life'], effect) +
    mostOf(layer.settings['births.standing'], effect);
  const room = mostOf(most, effect);
  if (points * living > room * 1.1)
    found.push({
      id: 'points',
      sentence: `${name} lays about ${said(points * living)} points at once, and has room for ${said(room)}: the rest are refused.`,
      where: 'appearance',
      measure: points * living,
      mend:
        points * living * 1.2 <= 200_000
          ? layerMend(layerId, `Give it room for ${Math.ceil(points * living * 1.2)}`, (own) => {
              if (own.drawn.kind === 'trail')
                own.drawn.settings.most.base = { kind: 'fixed', value: Math.ceil(points * living * 1.2) };
            })
          : null,
    });
  const tail = widthAtTail(width, effect);
  if (tail > BLUNT && drawn.settings.ends.base.value === 'goes too')
    found.push({
      id: 'tail',
      sentence: `${name}’s tail pops: it is ${said(tail)}% wide where it ends, and goes with its particle.`,
      severity: 'doubtful',
      where: 'appearance',
      measure: tail,
      mend: layerMend(layerId, 'Let it stay until it has faded, to a point', (own) => {
        if (own.drawn.kind !== 'trail') return;
        own.drawn.settings.ends.base = { kind: 'fixed', value: 'stays' };
        setWidthAlong(own.drawn, 100, 0);
      }),
    });
  return found;
}
