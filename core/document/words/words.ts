import { formatAddress } from '../parts/address.ts';
import { type Collection, defaultSetting, type Id, listed, type NumberSetting } from '../../settings/index.ts';
import { settingWords, withUnit, type Named } from './settingWords.ts';
import { diff } from '../diff.ts';
import type { Dial, Effect, Force, Hit, Place, Source } from '../schema/index.ts';
import { activeHits } from '../signals.ts';
import { stepsOf } from '../look.ts';
import { plain } from '../plain.ts';
import { layerQualityWords, qualityWords, stageWords } from './partWords.ts';
import { nameOfSetting } from '../parts/names.ts';
import { settingsIn, type FoundSetting } from '../parts/walk.ts';

/** One thing that is set, in words: under what heading, its name, and what it is. */
export interface SetLine {
  /** Tells it from every other line of the effect: it stays the same while the value changes. */
  readonly id: string;
  /** As in "Motes" or "The effect". */
  readonly heading: string;
  readonly name: string;
  readonly value: string;
}

function dialWords(dial: Dial): string {
  switch (dial.kind) {
    case 'number':
      return `${plain(dial.value)}, between ${plain(dial.least)} and ${plain(dial.most)}`;
    case 'switch':
      return dial.value ? 'on' : 'off';
    case 'place':
      return `at ${dial.at.map(plain).join(', ')} m`;
    case 'direction':
      return `turned ${dial.turn.map(plain).join(', ')}°`;
    case 'picture':
    case 'mesh':
      return `${dial.shows.name} for ${dial.standsFor.name}`;
  }
}

/** What a place hangs on, in words. */
function hangsOn(place: Place, { stage, dials }: Pick<Named, 'stage' | 'dials'>): string {
  switch (place.kind) {
    case 'effect':
    case 'world':
      return `in the ${place.kind}`;
    case 'dial':
      return `by the dial ${dials.byId[place.dial]?.name ?? ''},`;
    case 'thing':
    case 'bone':
      return `${place.kind === 'bone' ? `on ${place.bone} of` : 'at the feet of'} ${stage.things.byId[place.thing]?.name ?? 'something gone'}`;
  }
}

function placeWords(place: Place, named: Pick<Named, 'stage' | 'dials'>): string {
  const turned = place.turn.some((degrees) => degrees !== 0) ? `, turned ${place.turn.map(plain).join(', ')}°` : '';
  const keys = listed(place.keys).map(
    ({ item }) => `${plain(item.at)} s: ${item.offset.map(plain).join(', ')} (${item.ease})`,
  );
  return `${hangsOn(place, named)} at ${place.offset.map(plain).join(', ')} m${turned}${keys.length > 0 ? `; keys ${keys.join('; ')}` : ''}`;
}

function mutedHits({ hits }: { readonly hits: Collection<Hit> }): string {
  const muted = hits.order.length - activeHits({ hits }).length;
  return muted > 0 ? `, ${muted} of them muted` : '';
}

function sourceWords(source: Source, effect: Named): string {
  const thing = 'thing' in source ? ` of ${effect.stage.things.byId[source.thing]?.name ?? 'something gone'}` : '';
  const bones = 'bones' in source && source.bones.length > 0 ? `, ${source.bones.join(', ')}` : '';
  if (source.kind === 'drawn') return `the mesh of ${effect.layers.byId[source.layer]?.name ?? 'a layer gone'}`;
  if (source.kind === 'particles') return `particles of ${effect.layers.byId[source.layer]?.name ?? 'a layer gone'}`;
  if (source.kind === 'hits') return `hits, ${source.hits.order.length} in its list${mutedHits(source)}`;
  const place = 'place' in source ? `, ${placeWords(source.place, effect)}` : '';
  const points =
    source.kind === 'path' ? ` through ${source.points.map((point) => point.map(plain).join(', ')).join('; ')}` : '';
  return `${source.kind}${thing}${bones}${points}${place}`;
}

function momentWords(moment: Effect['layers']['byId'][string]['births']['from'], effect: Named): string {
  const seconds = moment.measure
    ? `${moment.seconds < 0 ? '−' : ''}${effect.measures.byId[moment.measure]?.name ?? ''}`
    : `${plain(moment.seconds)} s`;
  const { after } = moment;
  const BORDERS = { start: 'the start', hold: 'the hold begins', letGo: 'it is let go', end: 'the end' };
  const EVENTS = { firstBirth: 'first birth', lastBirth: 'last birth', lastDeath: 'last death' };
  return `${seconds} after ${after.kind === 'border' ? BORDERS[after.border] : `${effect.layers.byId[after.layer]?.name ?? ''}’s ${EVENTS[after.event]}`}`;
}

const isSet = ({ setting, declaration }: FoundSetting): boolean =>
  diff(defaultSetting(declaration), setting).length > 0;

/** What is set for an effect beside its settings. */
function ofEffect(effect: Effect): SetLine[] {
  const heading = 'The effect';
  const { opening, hold, closing, preRoll } = effect.stretches;
  const line = (id: string, name: string, value: string): SetLine => ({ id, heading, name, value });
  const holds =
    hold.kind === 'none'
      ? 'none'
      : `${plain(hold.seconds)} s, ${hold.kind === 'seamless' ? 'without a seam' : 'running on'}`;
  return [
    line('seed', 'seed', String(effect.seed)),
    line('opening', 'opening', `${plain(opening)} s`),
    line('hold', 'hold', holds),
    line('closing', 'closing', `${plain(closing)} s`),
    ...(preRoll > 0 ? [line('preRoll', 'pre-roll', `${plain(preRoll)} s`)] : []),
    ...listed(effect.palette).map(({ id, item: { name, colour, isDial } }) =>
      line(
        `palette.${id}`,
        `colour ${name}`,
        `${
          colour.kind === 'fixed'
            ? colour.hex
            : `${effect.palette.byId[colour.from]?.name ?? ''}, hue turned ${plain(colour.turned)}°, lighter by ${plain(colour.lighter)}`
        }${isDial ? ', a dial' : ''}`,
      ),
    ),
    ...listed(effect.measures).map(({ id, item }) =>
      line(
        `measures.${id}`,
        `measure ${item.name}`,
        withUnit(plain(item.value), { length: 'm', time: 's', count: '' }[item.quantity]),
      ),
    ),
    ...listed(effect.dials).map(({ id, item }) => line(`dials.${id}`, `dial ${item.name}`, dialWords(item))),
    ...listed(effect.signals).map(({ id, item }) =>
      line(
        `signals.${id}`,
        `signal ${item.name}`,
        item.tried ? `tried ${plain(item.tried.at)} s into the ${item.tried.stretch}` : 'not tried on the stage',
      ),
    ),
    ...listed(effect.groups).map(({ id, item }) =>
      line(
        `groups.${id}`,
        `group ${item.name}`,
        `${item.linked ? `the effect ${item.linked.effect.name}${item.linked.hidden ? ', hidden' : ''}, ${item.linked.inFront ? 'in front of' : 'behind'} all layers, ` : ''}at ${item.translation.map(plain).join(', ')} m, turned ${item.rotation.map(plain).join(', ')}°, ${plain(item.scale)} times as large`,
      ),
    ),
    ...qualityWords(effect.quality).map(([id, name, value]) => line(id, name, value)),
    ...stageWords(effect.stage).map(([id, name, value]) => line(id, name, value)),
  ];
}

const forceWords = (force: Force, effect: Named): string =>
  `${force.muted ? 'muted, ' : ''}${placeWords(force.place, effect)}`;

/** What is set for a layer beside its settings. */
function ofLayer(effect: Effect, id: Id): SetLine[] {
  const layer = effect.layers.byId[id]!;
  const line = (part: string, name: string, value: string): SetLine => ({
    id: `layers.${id}.${part}`,
    heading: layer.name,
    name,
    value,
  });
  const nameOf = (other: Id | null) => (other === null ? '' : (effect.layers.byId[other]?.name ?? ''));
  const flags = [layer.hidden ? 'hidden' : '', layer.solo ? 'seen alone' : '', layer.locked ? 'locked' : ''].filter(
    Boolean,
  );
  const isOwn = layer.population.kind === 'own';
  return [
    line(
      'drawn',
      'drawn as',
      layer.drawn.kind === 'mesh'
        ? `mesh (${listed(layer.drawn.meshes)
            .map(({ item }) => item.name)
            .join(', ')})`
        : layer.drawn.kind,
    ),
    ...(flags.length > 0 ? [line('flags', 'is', flags.join(', '))] : []),
    ...(layer.parent ? [line('parent', 'in the group', effect.groups.byId[layer.parent]?.name ?? '')] : []),
    ...(layer.population.kind === 'follows' ? [line('population', 'follows', nameOf(layer.population.layer))] : []),
    ...(isOwn ? [line('source', 'born on', sourceWords(layer.source, effect))] : []),
    ...(isOwn
      ? [
          line(
            'births',
            'births',
            `from ${momentWords(layer.births.from, effect)}${layer.births.until ? `, until ${momentWords(layer.births.until, effect)}` : ''}`,
          ),
        ]
      : []),
    ...layerQualityWords(layer).map((value) => line('quality', 'quality', value)),
    ...listed(layer.bursts).map(({ id: burst, item }) =>
      line(
        `bursts.${burst}`,
        'burst',
        `${item.muted ? 'muted, ' : ''}${item.count}${item.most > item.count ? ` to ${item.most}` : ''}, ${plain(item.at)} s ${item.signal === null ? `into the ${item.stretch}` : `after ${effect.signals.byId[item.signal]?.name ?? ''}`}${item.times > 1 ? `, ${item.times} times every ${plain(item.every)} s` : ''}`,
      ),
    ),
    ...listed(layer.forces).map(({ id: force, item }) =>
      line(`forces.${force}`, item.kind, forceWords(item, effect)),
    ),
    ...listed(layer.links).map(({ id: link, item }) =>
      line(`links.${link}`, 'link', `${item.muted ? 'muted, ' : ''}on ${item.on} sets off ${nameOf(item.layer)}`),
    ),
    ...(layer.front ? [line('front', 'held until freed by', effect.fronts.byId[layer.front]?.name ?? '')] : []),
    ...(layer.inside ? [line('inside', 'seen inside', nameOf(layer.inside))] : []),
    ...(layer.seenBy ? [line('seenBy', 'seen while', effect.dials.byId[layer.seenBy]?.name ?? '')] : []),
    line(
      'look',
      'look',
      layer.look.kind === 'named'
        ? (effect.looks.byId[layer.look.look]?.name ?? '')
        : stepsOf(effect, layer)
            .map(
              ({ item }) =>
                `${item.muted ? 'muted ' : ''}${item.kind}${'picture' in item && item.picture ? ` (${item.picture.name})` : ''}`,
            )
            .join(', '),
    ),
  ];
}

/** Everything that was set, a line each: the effect, then its layers front to back. What is as it is by default is left out, unless all is asked for. */
export function wordsOf(effect: Effect, which: 'set' | 'all' = 'set'): SetLine[] {
  const settings = settingsIn(effect).filter((found) => which === 'all' || isSet(found));
  const lineOf = (found: FoundSetting, heading: string): SetLine => ({
    id: formatAddress(found.address),
    heading,
    name: nameOfSetting(effect, found.address, found.declaration),
    value: settingWords(found.setting as NumberSetting, found.declaration, effect),
  });
  return [
    ...ofEffect(effect),
    ...settings.filter(({ layer }) => layer === null).map((found) => lineOf(found, 'The effect')),
    ...effect.layers.order.flatMap((id) => [
      ...ofLayer(effect, id),
      ...settings.filter(({ layer }) => layer === id).map((found) => lineOf(found, effect.layers.byId[id]!.name)),
    ]),
  ];
}

/** Lines under their headings, each heading once, in the order in which they first come. */
export function sectionsOf<L extends { readonly heading: string }>(
  lines: readonly L[],
): { readonly heading: string; readonly lines: L[] }[] {
  const sections = new Map<string, L[]>();
  for (const line of lines) {
    const known = sections.get(line.heading);
    if (known) known.push(line);
    else sections.set(line.heading, [line]);
  }
  return [...sections].map(([heading, own]) => ({ heading, lines: own }));
}

/** The lines as one page of text, each heading once. */
export function pageOf(name: string, lines: readonly SetLine[]): string {
  const titled = (title: string, rule: string) => [title, rule.repeat(title.length)];
  const sections = sectionsOf(lines).flatMap(({ heading, lines: own }) => [
    '',
    ...titled(heading, '-'),
    ...own.map((line) => `${line.name}: ${line.value}`),
  ]);
  return `${[...titled(name, '='), ...sections].join('\n')}\n`;
}

/** A line that two effects have, each in its own words; null where one has it not. */
export interface Difference {
  readonly id: string;
  readonly heading: string;
  readonly name: string;
  readonly left: string | null;
  readonly right: string | null;
}

/** What of two effects is not the same, in the order of the left one, then what only the right one has. */
export function differencesOf(left: readonly SetLine[], right: readonly SetLine[]): Difference[] {
  const rights = new Map(right.map((line) => [line.id, line]));
  const lefts = new Set(left.map(({ id }) => id));
  return [
    ...left.flatMap(({ id, heading, name, value }) => {
      const other = rights.get(id)?.value ?? null;
      return other === value ? [] : [{ id, heading, name, left: value, right: other }];
    }),
    ...right
      .filter(({ id }) => !lefts.has(id))
      .map(({ id, heading, name, value }) => ({ id, heading, name, left: null, right: value })),
  ];
}
