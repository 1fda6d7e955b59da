import type { StageRigs } from '@jinx/core/checks';
import {
  formatAddress,
  forceWord,
  FORCES,
  forcesOn,
  listed,
  nameOfSetting,
  settingsOfEffect,
  settingsOfLayer,
  STEP_NAMES,
  STEP_OTHER_WORDS,
  stepsOf,
  surfacesFor,
  type Effect,
  type FoundSetting,
  type Id,
} from '@jinx/core/document';
import type { AssetSummary, EffectSummary } from '../../api';
import type { FitTarget } from '@jinx/core/editing';
import type { ToldFinding } from '../../engine/checksWorker';
import { forceAddress } from '../chapters/changeForce';
import { settingBeside } from '../values/changeSetting';
import { setTurnsASecond, turnsASecond } from '../chapters/orbitTurns';
import { readNumber } from '../entry/numbers';
import { keyName } from '../commands/placeKeys';
import type { Command } from '../commands/registry';
import type { PickItem } from '../pick/pick';
import { assetTargets } from './assetTargets';
import { gridTargets } from './gridTargets';
import { namedTargets } from './namedTargets';
import { absentPlaceTargets, placeTargets } from './placeTargets';
import { timeTargets } from './timeTargets';
import { exposeTargets, frontTargets, linkTargets, removeTargets } from './partActs';
import { shapeTargets } from './shapeTargets';
import { stageTargets } from './stageTargets';
import { thingTargets } from './thingTargets';
import { layerTargets, partTargets } from './partTargets';
import { absentTargets, settingTargets } from './settingTargets';
import type { Target } from './target';

/** Settings that concern the chosen layer: its own, and those of the effect's parts that act on it. */
function settingsFor(effect: Effect, layerId: Id): FoundSetting[] {
  const layer = effect.layers.byId[layerId];
  if (!layer) return [];
  const met = new Set(surfacesFor(effect, layerId).map(({ id }) => id));
  return [
    ...settingsOfLayer(effect, layerId),
    ...settingsOfEffect(effect).filter(
      ({ address }) =>
        address.kind === 'sharedForce' ||
        (address.kind === 'surface' && met.has(address.id)) ||
        (address.kind === 'front' && address.id === layer.front),
    ),
  ];
}

/** Settings that the chosen layer lacks and others that are chosen with it have. */
function settingsOfOthers(effect: Effect, layerId: Id, chosenIds: readonly Id[]): FoundSetting[] {
  const known = new Set<string>();
  return chosenIds
    .filter((id) => id !== layerId)
    .flatMap((id) => settingsOfLayer(effect, id))
    .filter(({ address, declaration }) => {
      if (settingBeside(effect, address, address.setting, layerId)) return false;
      const name = nameOfSetting(effect, address, declaration);
      return !known.has(name) && known.add(name);
    });
}

/** Forces and steps that are there: by their names they are gone to. */
function presentTargets(effect: Effect, layerId: Id): Target[] {
  const layer = effect.layers.byId[layerId];
  if (!layer) return [];
  return [
    ...forcesOn(effect, layerId).map(({ id, item, isShared }): Target => {
      const name = forceWord(item.kind);
      const [setting = ''] = Object.keys(FORCES[item.kind].settings);
      const chip = formatAddress({ ...forceAddress(layerId, id, isShared), setting });
      return {
        id: `force ${id}`,
        text: name,
        otherWords: FORCES[item.kind].otherWords,
        detail: `${layer.name} · motion`,
        run: ({ leadTo }) => leadTo('motion', chip),
      };
    }),
    ...forcesOn(effect, layerId)
      .filter(({ item }) => turnsASecond(item, effect) !== null)
      .map(({ id, isShared }): Target => {
        const address = forceAddress(layerId, id, isShared);
        return {
          id: `turns ${id}`,
          text: 'orbit turns a second',
          otherWords: ['turns per second', 'revolutions per second', 'rotations a second'],
          detail: `${layer.name} · motion`,
          run: ({ leadTo }) => leadTo('motion', null, 'orbit, turns a second'),
          take: (text) => {
            const turns = readNumber(text);
            return {
              text: `orbit: ${turns} turns a second`,
              run: ({ changeForce, leadTo }) => {
                changeForce('set turns a second', address, (force) => setTurnsASecond(force, turns, effect));
                leadTo('motion', null, 'orbit, turns a second');
              },
            };
          },
        };
      }),
    ...stepsOf(effect, layer).map(({ id, item }): Target => {
      const [setting = ''] = Object.keys(item.settings);
      return {
        id: `step ${id}`,
        text: STEP_NAMES[item.kind].toLowerCase(),
        otherWords: STEP_OTHER_WORDS[item.kind],
        detail: `${layer.name} · appearance`,
        run: ({ leadTo }) => leadTo('appearance', formatAddress({ kind: 'step', layer: layerId, id, setting })),
      };
    }),
  ];
}

/** What there is to be found in. */
export interface Around {
  readonly effect: Effect;
  readonly layerId: Id;
  /** All chosen layers, that one among them. */
  readonly chosenIds: readonly Id[];
  readonly rigs: StageRigs;
  readonly surfaces: readonly PickItem[];
  /** What the layer's source may be fitted to. */
  readonly fits: readonly { readonly target: FitTarget; readonly text: string }[];
  readonly assets: readonly AssetSummary[];
  readonly commands: readonly Command[];
  /** The keys that a command has now. */
  readonly keysOf: (id: string) => readonly string[];
  readonly findings: readonly ToldFinding[];
  /** Pages of the guide, and what stands on them. */
  readonly guide: readonly Target[];
  readonly effects: readonly Pick<EffectSummary, 'id' | 'name'>[];
  readonly choose: (layer: Id) => void;
  readonly open: (effect: string) => void;
  readonly lead: (finding: ToldFinding) => void;
}

/** Everything that the box finds, what is likelier to be meant first. */
export function targetsOf(around: Around): Target[] {
  const { effect, layerId } = around;
  const layer = effect.layers.byId[layerId];
  const keyOf = (command: string) => {
    const [key] = around.keysOf(command);
    return key === undefined ? {} : { key: keyName(key) };
  };
  const found = [...settingsFor(effect, layerId), ...settingsOfOthers(effect, layerId, around.chosenIds)];
  return [
    ...settingTargets(effect, found),
    ...presentTargets(effect, layerId),
    ...placeTargets(effect, layerId, around.rigs),
    ...shapeTargets(effect, layerId),
    ...gridTargets(effect, layerId),
    ...linkTargets(effect, layerId),
    ...timeTargets(effect, layerId),
    ...partTargets(effect, layerId, around.surfaces),
    // Surrounds are among what the stage has, where they are seen as they are pointed at.
    ...around.commands
      .filter(({ id }) => !id.startsWith('surround.'))
      .map((command): Target => ({
        id: `command ${command.id}`,
        text: command.label,
        otherWords: command.otherWords,
        detail: 'a command',
        ...keyOf(command.id),
        run: (tools) => tools.command(command.id),
      })),
    ...stageTargets(effect, keyOf),
    ...namedTargets(effect),
    ...thingTargets(listed(effect.stage.things), (id) => (around.rigs.get(id)?.clips ?? []).map(({ name }) => name)),
    ...assetTargets(around.assets, layer ? { id: layerId, name: layer.name } : null),
    ...(layer && 'place' in layer.source ? around.fits : []).map(({ target, text }): Target => ({
      id: `fit ${JSON.stringify(target)}`,
      text: `fit to ${text}`,
      otherWords: [`align to ${text}`, `match size of ${text}`, `snap to ${text}`],
      detail: `the source of ${layer!.name}`,
      previews: true,
      run: (tools) => {
        tools.fit(target);
        tools.leadTo('source', null, 'source place');
      },
    })),
    ...layerTargets(effect, layerId, around.choose),
    ...removeTargets(effect, layerId),
    ...exposeTargets(effect, found),
    ...frontTargets(effect, layerId),
    ...absentTargets(effect, layerId),
    ...absentPlaceTargets(effect, layerId, around.rigs),
    ...around.findings.map((finding): Target => ({
      id: `finding ${finding.id}`,
      text: finding.sentence,
      detail: 'a finding',
      run: () => around.lead(finding),
    })),
    ...around.guide,
    ...around.effects.map(({ id, name }): Target => ({
      id: `effect ${id}`,
      text: name,
      otherWords: [`effect ${name}`, `open ${name}`],
      detail: 'an effect of the project',
      run: () => around.open(id),
    })),
  ];
}
