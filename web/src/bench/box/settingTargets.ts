import {
  type ChoiceSetting,
  type Declaration,
  defaultSetting,
  type Effect,
  FORCE_KINDS,
  type ForceKind,
  FORCES,
  forceWord,
  formatAddress,
  type FoundSetting,
  holderAt,
  type Id,
  type LayerSettingName,
  layerOf,
  nameOfSetting,
  type Setting,
  type SettingAddress,
  STEP_KINDS,
  STEP_OTHER_WORDS,
  type StepKind,
  stepsOf,
  STEP_NAMES,
  stepTable,
  SURFACE_SETTINGS,
  surfacesFor,
} from '@jinx/core/document';
import { ACTS_WHEN } from '@jinx/core/checks';
import type { ChapterName } from '@jinx/core/editing';
import type { Act, Addable, Target, Tools } from './target';
import { choicesOf } from '../choices/choices';
import { readValue } from './values';

/** The chapter that a setting stands in. */
export function chapterOf({ kind }: SettingAddress, { chapter }: Declaration): ChapterName {
  if (kind === 'layer')
    return chapter === 'source' || chapter === 'births' || chapter === 'motion' || chapter === 'life'
      ? chapter
      : 'appearance';
  const CHAPTERS: Partial<Record<SettingAddress['kind'], ChapterName>> = {
    force: 'motion',
    sharedForce: 'motion',
    surface: 'motion',
    link: 'links',
    front: 'source',
    channels: 'life',
  };
  return CHAPTERS[kind] ?? 'appearance';
}

/** The choice that lets a setting of a layer act where it does not. */
const LETS_ACT: Partial<Record<LayerSettingName, readonly [setting: LayerSettingName, value: string]>> = {
  'motion.axis': ['motion.launch', 'axis'],
  'motion.angle': ['motion.launch', 'tangent'],
};
/** Chooses what a setting needs to act, where something else is chosen. */
function letAct(address: SettingAddress, { effect, changeSetting }: Tools): void {
  if (address.kind !== 'layer') return;
  const name = address.setting as LayerSettingName;
  const [lets, [acts] = []] = [LETS_ACT[name], ACTS_WHEN[name]];
  if (!lets || acts?.(effect().layers.byId[address.layer]!)) return;
  const [setting, value] = lets;
  changeSetting({ ...address, setting }, `set ${setting}`, (target) => {
    (target as ChoiceSetting).base = { kind: 'fixed', value };
  });
}

/** The number of a force, or the setting of a step, that is meant where a value is given to the whole by its name. */
const MAIN: Readonly<Partial<Record<ForceKind | StepKind, string>>> = {
  attraction: 'strength',
  curl: 'strength',
  drag: 'strength',
  gravity: 'strength',
  jitter: 'strength',
  limit: 'fastest',
  orbit: 'distance',
  push: 'strength',
  vortex: 'strength',
  wind: 'speed',
  dissolve: 'amount',
  intensity: 'factor',
  rim: 'intensity',
  soft: 'distance',
  tint: 'colour',
  warp: 'strength',
};
const isForceKind = (kind: ForceKind | StepKind): kind is ForceKind => kind in FORCES;
/** Words by which a setting is found beside its name: its own, and those of the whole of a force or a step where that is what it means. */
function otherWordsOf(
  { otherWords = [] }: Declaration,
  setting: string,
  kind: ForceKind | StepKind | null,
): readonly string[] {
  if (kind === null || MAIN[kind] !== setting) return otherWords;
  return isForceKind(kind)
    ? [...otherWords, forceWord(kind), ...FORCES[kind].otherWords]
    : [...otherWords, STEP_NAMES[kind].toLowerCase(), ...STEP_OTHER_WORDS[kind]];
}
/** What kind of force or of step has a setting; null where it is of neither. */
function kindOf(effect: Effect, address: SettingAddress): ForceKind | StepKind | null {
  if (address.kind === 'force') return effect.layers.byId[address.layer]!.forces.byId[address.id]!.kind;
  if (address.kind === 'sharedForce') return effect.forces.byId[address.id]!.force.kind;
  if (address.kind !== 'step') return null;
  return stepsOf(effect, effect.layers.byId[address.layer]!).find(({ id }) => id === address.id)!.item.kind;
}

/** Gives a setting what was typed, as an act. */
export function takeInto(address: SettingAddress, text: string, tools: Tools): Act {
  const effect = tools.effect();
  const holder = holderAt(effect, address)!;
  const { [address.setting]: setting } = holder.settings as Record<string, Setting>;
  const declaration = holder.table[address.setting]!;
  const taken = readValue(text, {
    setting: setting!,
    declaration,
    effect,
    life: tools.life(),
    newId: tools.newId,
  });
  return {
    text: taken.text,
    run: (all) => {
      const { changeSetting, leadTo } = all;
      letAct(address, all);
      changeSetting(address, `set ${nameOfSetting(effect, address, declaration)}`, taken.recipe);
      leadTo(chapterOf(address, declaration), formatAddress(address));
    },
  };
}

/** A setting that is there: chosen it is led to, with a value it is set. */
function targetOf(effect: Effect, { address, declaration }: Pick<FoundSetting, 'address' | 'declaration'>): Target {
  const layer = layerOf(address);
  const chapter = chapterOf(address, declaration);
  return {
    id: formatAddress(address),
    text: nameOfSetting(effect, address, declaration),
    otherWords: otherWordsOf(declaration, address.setting, kindOf(effect, address)),
    detail: [layer === null ? '' : (effect.layers.byId[layer]?.name ?? ''), chapter].filter(Boolean).join(' · '),
    help: declaration.help,
    run: ({ leadTo }) => leadTo(chapter, formatAddress(address)),
    take: (text, tools) => takeInto(address, text, tools),
  };
}
/** Each choice of a setting, by its own words: "additive" is found without naming blending. */
function choiceTargets(effect: Effect, { address, declaration }: FoundSetting): Target[] {
  if (declaration.value !== 'choice') return [];
  return choicesOf(declaration).map(({ value, text, otherWords }) => ({
    id: `${formatAddress(address)}=${value}`,
    text,
    otherWords: [
      ...otherWords,
      `${declaration.name} ${text}`,
      `${nameOfSetting(effect, address, declaration)} ${text}`,
    ],
    detail: `${nameOfSetting(effect, address, declaration)}, a choice`,
    help: declaration.help,
    previews: true,
    run: ({ changeSetting, leadTo }) => {
      changeSetting(
        address,
        `set ${declaration.name}`,
        (target) => (target.base = { kind: 'fixed', value } as never),
      );
      leadTo(chapterOf(address, declaration), formatAddress(address));
    },
  }));
}

/** Settings of the chosen layer, of its parts, and of the effect's own parts that act on it. */
export const settingTargets = (effect: Effect, found: readonly FoundSetting[]): Target[] => [
  ...found.map((one) => targetOf(effect, one)),
  ...found.flatMap((one) => choiceTargets(effect, one)),
];

/** A setting of something that is not there yet: choosing it adds that, and leads to it. */
function absentTarget(
  of: {
    readonly kind: ForceKind | StepKind | null;
    readonly add: Addable;
    readonly word: string;
    readonly chapter: ChapterName;
  },
  table: Readonly<Record<string, Declaration>>,
  setting: string,
  addressOf: (id: Id, layer: Id) => SettingAddress,
): Target {
  const declaration = table[setting]!;
  const made = (tools: Tools): SettingAddress => addressOf(tools.add(of.add) ?? '', tools.chosenId());
  return {
    id: `absent ${of.word} ${setting}`,
    text: `${of.word} ${declaration.name}`,
    otherWords: otherWordsOf(declaration, setting, of.kind),
    detail: `adds ${of.word}`,
    help: declaration.help,
    run: (tools) => {
      const address = made(tools);
      tools.leadTo(of.chapter, formatAddress(address));
    },
    take: (text, tools) => {
      const setting: Setting = defaultSetting(declaration);
      const around = { setting, declaration, effect: tools.effect(), life: tools.life(), newId: tools.newId };
      return {
        text: `add ${of.word}, ${readValue(text, around).text}`,
        run: (all) => takeInto(made(all), text, all).run(all),
      };
    },
  };
}

/** The ground, where a layer meets nothing yet. */
const GROUND = { kind: null, add: { kind: 'surface', of: 'ground' }, word: 'ground', chapter: 'motion' } as const;

/** Forces, steps of a look and the ground that the chosen layer lacks: each setting of them is found, and offers to add them. */
export function absentTargets(effect: Effect, layerId: Id): Target[] {
  const layer = effect.layers.byId[layerId];
  if (!layer) return [];
  const forces = new Set(Object.values(layer.forces.byId).map(({ kind }) => kind));
  const steps = new Set(
    layer.look.kind === 'own' ? Object.values(layer.look.steps.byId).map(({ kind }) => kind) : [],
  );
  return [
    ...FORCE_KINDS.filter((kind) => !forces.has(kind)).flatMap((kind) => {
      const table = FORCES[kind].settings as Record<string, Declaration>;
      const of = {
        kind,
        add: { kind: 'force', of: kind },
        word: forceWord(kind),
        chapter: 'motion',
      } as const;
      return Object.keys(table).map((setting) =>
        absentTarget(of, table, setting, (id, layer) => ({ kind: 'force', layer, id, setting })),
      );
    }),
    ...STEP_KINDS.filter((kind) => !steps.has(kind)).flatMap((kind) => {
      const table = stepTable(kind);
      const of = {
        kind,
        add: { kind: 'step', of: kind },
        word: STEP_NAMES[kind].toLowerCase(),
        chapter: 'appearance',
      } as const;
      return Object.keys(table).map((setting) =>
        absentTarget(of, table, setting, (id, layer) => ({ kind: 'step', layer, id, setting })),
      );
    }),
    ...(surfacesFor(effect, layerId).length > 0 ? [] : Object.keys(SURFACE_SETTINGS.ground)).map((setting) =>
      absentTarget(GROUND, SURFACE_SETTINGS.ground, setting, (id) => ({ kind: 'surface', id, setting })),
    ),
  ];
}
