import { READY, type ReadyKind } from '@jinx/core/building';
import {
  FORCE_KINDS,
  FORCES,
  listed,
  STEP_KINDS,
  STEP_NAMES,
  STEP_OTHER_WORDS,
  type Effect,
} from '@jinx/core/document';
import { DRAWN_KINDS } from '../acts/useDrawnActs';
import { SOURCE_KINDS } from '../acts/useSourceActs';
import type { PickItem } from '../pick/pick';
import { layersAfter } from '../values/linkable';
import type { Addable, Target } from './target';

const READY_OTHER_WORDS: Readonly<Record<ReadyKind, readonly string[]>> = {
  dots: ['plain particles', 'preset'],
  one: ['single particle', 'still sprite', 'static sprite'],
  spring: ['fountain', 'water jet', 'splash'],
  halo: ['floating motes', 'ambient particles', 'fireflies'],
  streaks: ['speed lines', 'energy lines', 'power up'],
  swirl: ['vortex', 'gathering', 'charge up', 'implosion'],
  orbit: ['orbiting runes', 'circling symbols', 'ring of symbols'],
  flash: ['muzzle flash', 'impact flash', 'burst of light'],
  ring: ['shockwave', 'expanding ring', 'ripple'],
  dust: ['ground dust', 'impact dust', 'landing'],
  bent: ['heat wave', 'distortion ring', 'refraction'],
  struck: ['shield impact', 'hit ripple', 'shield hit'],
  trail: ['weapon trail', 'tip trail'],
  crackle: ['electricity', 'lightning on the body', 'static'],
  held: ['disintegration', 'dissolve into pieces', 'unmaking'],
  mesh: ['shield', 'dome', 'static mesh', 'prop'],
  debris: ['rocks', 'rubble', 'chunks'],
  flame: ['fire'],
  smoke: ['fog puff', 'steam'],
  sparks: ['embers'],
  ribbons: ['flying ribbons', 'streamers'],
  glow: ['halo', 'flare'],
  mark: ['ground decal', 'rune', 'circle on the ground'],
  line: ['drawn line', 'written stroke'],
  blade: ['slash', 'sword trail'],
  skin: ['second skin', 'fresnel shell', 'outline of the body'],
  light: ['point light', 'lamp'],
};

const adds = (what: Addable, id: string, text: string, otherWords: readonly string[], detail: string): Target => ({
  id,
  text,
  otherWords,
  detail,
  previews: true,
  run: (tools) => void tools.add(what),
});

/** All that can be added to the chosen layer or to the effect, or chosen in place of what is there. */
export function partTargets(effect: Effect, layerId: string, surfaces: readonly PickItem[]): Target[] {
  const layer = effect.layers.byId[layerId];
  const general: Target[] = [
    adds({ kind: 'layer' }, 'add layer', 'add a layer', ['new layer', 'new emitter', 'emitter'], 'plain soft dots'),
    ...(Object.keys(READY) as ReadyKind[]).map((kind) =>
      adds(
        { kind: 'ready', of: kind },
        `ready ${kind}`,
        `add ${READY[kind]}`,
        [READY[kind].replace(/^an? /, ''), ...READY_OTHER_WORDS[kind]],
        'a layer that is something at once',
      ),
    ),
  ];
  if (!layer) return general;
  return [
    ...FORCE_KINDS.map((kind) =>
      adds(
        { kind: 'force', of: kind },
        `add force ${kind}`,
        `add ${FORCES[kind].name.toLowerCase()}`,
        [FORCES[kind].name, ...FORCES[kind].otherWords],
        `a force on ${layer.name}`,
      ),
    ),
    ...STEP_KINDS.map((kind) =>
      adds(
        { kind: 'step', of: kind },
        `add step ${kind}`,
        `add ${STEP_NAMES[kind].toLowerCase()}`,
        [STEP_NAMES[kind], ...STEP_OTHER_WORDS[kind]],
        `a step of the look of ${layer.name}`,
      ),
    ),
    ...SOURCE_KINDS.map(({ value, text, otherWords = [] }) =>
      adds(
        { kind: 'source', of: value },
        `source ${value}`,
        `born ${text}`,
        [value, `source ${text}`, `source ${value}`, `emitter shape ${value}`, text, ...otherWords],
        `where ${layer.name} is born`,
      ),
    ),
    ...DRAWN_KINDS.map(({ value, text, otherWords = [] }) =>
      adds(
        { kind: 'drawn', of: value },
        `drawn ${value}`,
        `drawn as ${text}`,
        [`drawn as ${value}`, `render as ${value}`, text, ...otherWords],
        `what ${layer.name} looks like`,
      ),
    ),
    ...surfaces.map(({ value, text, otherWords = [] }) =>
      adds(
        { kind: 'surface', of: value },
        `surface ${value}`,
        `meet ${text.replace(/^./, (letter) => letter.toLowerCase())}`,
        [`add surface ${text}`, `collision with ${text}`, 'collision', 'collider', ...otherWords],
        `what ${layer.name} bounces off, slides along or stays on`,
      ),
    ),
    adds({ kind: 'burst' }, 'add burst', 'add a burst', ['another burst'], `births of ${layer.name}`),
    adds(
      { kind: 'link', of: null },
      'set off new',
      'set off a new layer',
      [
        'child particles',
        'secondary particles',
        'spawn on death',
        'spawn on hit',
        'spawn on collision',
        'new child layer',
      ],
      `a layer that ${layer.name} sets off`,
    ),
    ...layersAfter(effect, layerId).map(({ value, text }) =>
      adds(
        { kind: 'link', of: value },
        `set off ${value}`,
        `set off ${text}`,
        [
          `link to ${text}`,
          `child particles ${text}`,
          `spawn ${text} on death`,
          'child particles',
          'secondary particles',
        ],
        `a link of ${layer.name}`,
      ),
    ),
    ...general,
  ];
}

/** Layers to go to, and whose particles the chosen layer may show. */
export const layerTargets = (effect: Effect, layerId: string, choose: (id: string) => void): Target[] =>
  listed(effect.layers)
    .filter(({ id }) => id !== layerId)
    .flatMap(({ id, item }): Target[] => [
      {
        id: `layer ${id}`,
        text: item.name,
        otherWords: [`layer ${item.name}`, `go to ${item.name}`],
        detail: 'a layer',
        run: () => choose(id),
      },
      ...(effect.layers.byId[layerId] && item.population.kind === 'own'
        ? [
            {
              id: `follow ${id}`,
              text: `follow ${item.name}`,
              otherWords: [`particles of ${item.name}`, `population ${item.name}`, `same particles as ${item.name}`],
              detail: 'shows that layer’s particles again',
              previews: true,
              run: ({ change }: Parameters<Target['run']>[0]) =>
                change('choose the population', (draft) => {
                  const own = draft.layers.byId[layerId];
                  if (own) own.population = { kind: 'follows', layer: id };
                }),
            },
          ]
        : []),
    ]);
