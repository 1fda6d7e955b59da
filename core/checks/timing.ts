import {
  formatAddress,
  isSameAddress,
  listed,
  placesOf,
  settingsOfLayer,
  type Burst,
  type Effect,
  type Id,
  type Key,
  type NumberSetting,
} from '../document/index.ts';
import { EffectClock, windowOf } from '../simulation/index.ts';
import { lifetimes } from './lifeSamples.ts';
import type { Problem } from './mend.ts';
import { layerMend, said } from './numbers.ts';
import { deadSpans, sheetClock } from './presence.ts';

const isOver = ({ at, stretch }: Pick<Burst, 'at' | 'stretch'>, clock: EffectClock): boolean =>
  stretch === 'opening' ? at >= clock.opening && at > 0 : stretch === 'hold' ? at >= clock.hold : at > clock.closing;

/** The last instant of a stretch in which something may happen, a step before its end. */
const lastOf = (stretch: Burst['stretch'], clock: EffectClock): number =>
  Math.max(0, clock[stretch] - (stretch === 'closing' ? 0 : 1 / clock.rate));

/** Bursts and hits that lie beyond their stretch: they never come. */
function neverComing(effect: Effect, layerId: Id, clock: EffectClock): Problem[] {
  const { name, bursts, source } = effect.layers.byId[layerId]!;
  const say = (what: string, { at, stretch }: Pick<Burst, 'at' | 'stretch'>) =>
    `${name} has a ${what} ${said(at)} s into the ${stretch}, which is ${said(clock[stretch])} s long: it never comes.`;
  return [
    ...listed(bursts)
      .filter(({ item }) => item.signal === null && isOver(item, clock))
      .map(({ id, item }): Problem => ({
        id: `burst/${id}`,
        sentence: say('burst', item),
        where: 'births',
        measure: item.at,
        mend: layerMend(layerId, `Let it come at ${said(lastOf(item.stretch, clock))} s`, (own) => {
          own.bursts.byId[id]!.at = lastOf(item.stretch, clock);
        }),
      })),
    ...(source.kind === 'hits' ? listed(source.hits) : [])
      .filter(({ item }) => isOver(item, clock))
      .map(({ id, item }): Problem => ({
        id: `hit/${id}`,
        sentence: say('hit', item),
        where: 'source',
        measure: item.at,
        mend: layerMend(layerId, `Let it come at ${said(lastOf(item.stretch, clock))} s`, (own) => {
          if (own.source.kind === 'hits') own.source.hits.byId[id]!.at = lastOf(item.stretch, clock);
        }),
      })),
  ];
}

/** Births that have ended before they begin. */
function noTimeForBirths(effect: Effect, layerId: Id, clock: EffectClock): Problem[] {
  const layer = effect.layers.byId[layerId]!;
  const { births } = layer;
  if (!births.until || layer.population.kind === 'follows' || layer.source.kind === 'hits') return [];
  const { from, until } = windowOf(layer, effect, clock);
  if (until > from) return [];
  return [
    {
      id: 'window',
      sentence: `${layer.name} has no time to be born in: births end before they begin, at ${said(from)} s.`,
      where: 'births',
      mend: layerMend(layerId, 'Let births go on', (own) => (own.births.until = null)),
    },
  ];
}

const SECONDS_AFTER: readonly Key['at']['anchor'][] = ['afterBirth', 'beforeDeath'];

/** Keys that stand further from birth or death than the shortest life is long: those particles never come to them. */
function keysPastLife(effect: Effect, layerId: Id): Problem[] {
  const { name } = effect.layers.byId[layerId]!;
  const [shortest, middle] = lifetimes(effect, layerId);
  const settings = settingsOfLayer(effect, layerId);
  return settings.flatMap(({ address, declaration, setting: found }) => {
    const late = listed((found as NumberSetting).shapers).flatMap(({ item: { reads, mapping, muted } }) => {
      if (muted || reads.kind !== 'age' || mapping.kind === 'gradient') return [];
      const curves = mapping.kind === 'curve' ? [mapping.curve] : [mapping.low, mapping.high];
      return curves.flatMap(({ keys }) =>
        listed(keys).filter(({ item }) => SECONDS_AFTER.includes(item.at.anchor) && item.at.value > shortest),
      );
    });
    if (late.length === 0) return [];
    const [{ item }] = late as [(typeof late)[number]];
    const wherefrom = item.at.anchor === 'afterBirth' ? 'after birth' : 'before death';
    const ids = new Set(late.map(({ id }) => id));
    return [
      {
        id: `keys/${formatAddress(address)}`,
        sentence: `${declaration.name} of ${name} has a key ${said(item.at.value)} s ${wherefrom}, past the shortest life of ${said(shortest)} s.`,
        severity: 'doubtful',
        where: 'life',
        measure: item.at.value,
        mend: {
          label: 'Let it stand at a share of life',
          apply: (draft) => {
            const own = settingsOfLayer(draft, layerId).find((each) => isSameAddress(each.address, address));
            for (const shaper of listed((own!.setting as NumberSetting).shapers)) {
              const { mapping } = shaper.item;
              if (shaper.item.reads.kind !== 'age' || mapping.kind === 'gradient') continue;
              for (const { keys } of mapping.kind === 'curve' ? [mapping.curve] : [mapping.low, mapping.high])
                for (const { id, item: key } of listed(keys))
                  if (ids.has(id) && key.at.anchor !== 'share') {
                    const share = Math.min(1, key.at.value / middle);
                    const to = key.at.anchor === 'afterBirth' ? share : 1 - share;
                    // Slopes were by the second.
                    Object.assign(key, {
                      at: { anchor: 'share', value: to },
                      slopeIn: key.slopeIn * middle,
                      slopeOut: key.slopeOut * middle,
                    });
                  }
            }
          },
        },
      } satisfies Problem,
    ];
  });
}

/** Keys of places beyond the end of the sheet. */
function keysPastEnd(effect: Effect, layerId: Id, clock: EffectClock): Problem[] {
  const { name } = effect.layers.byId[layerId]!;
  return placesOf(effect, layerId)
    .filter(({ address }) => address.kind !== 'group' && address.kind !== 'sharedForce')
    .flatMap(({ address, name: what, place }): Problem[] => {
      const last = Math.max(0, ...listed(place.keys).map(({ item }) => item.at));
      if (last <= clock.length + 1e-6) return [];
      return [
        {
          id: `placeKeys/${formatAddress(address)}`,
          sentence: `${name}: the ${what} has a key at ${said(last)} s, past the end at ${said(clock.length)} s.`,
          severity: 'doubtful',
          where: 'rulers',
          measure: last,
          mend: null,
        },
      ];
    });
}

export function timingProblems(effect: Effect, layerId: Id): Problem[] {
  const clock = sheetClock(effect);
  return [
    ...neverComing(effect, layerId, clock),
    ...noTimeForBirths(effect, layerId, clock),
    ...keysPastLife(effect, layerId),
    ...keysPastEnd(effect, layerId, clock),
  ];
}

/** Parts of the effect in which nothing lives. What is left at the end of a stretch can be cut off. */
export function deadSeconds(effect: Effect): Problem[] {
  const clock = sheetClock(effect);
  const ends = { opening: clock.opening, hold: clock.opening + clock.hold, closing: clock.length };
  // Where nothing lives at all, each layer says why.
  const spans = deadSpans(effect).filter(({ from, to }) => to - from < clock.length * 0.99);
  return spans.map(({ from, to }, n): Problem => {
    const seconds = to - from;
    const isAt = (time: number) => Math.abs(time - to) < clock.length / 200;
    const stretch = (['closing', 'hold', 'opening'] as const).find(
      (each) => isAt(ends[each]) && clock[each] > 0 && from > ends[each] - clock[each] - 1e-6,
    );
    const shorter = stretch ? Number((clock[stretch] - seconds).toFixed(2)) : 0;
    return {
      id: `dead${n}`,
      sentence: `Nothing lives for ${said(seconds)} s, from ${said(from)} s on.`,
      severity: 'doubtful',
      where: 'rulers',
      measure: seconds,
      mend:
        stretch && shorter >= 0.1
          ? {
              label: `Make the ${stretch} ${said(shorter)} s long`,
              apply: ({ stretches }) => {
                if (stretch !== 'hold') stretches[stretch] = shorter;
                else if (stretches.hold.kind !== 'none') stretches.hold.seconds = shorter;
              },
            }
          : null,
    };
  });
}
