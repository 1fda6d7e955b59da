import {
  actingValue,
  type ColourSetting,
  type Declaration,
  DRAWN_SETTINGS,
  type Effect,
  type Id,
  isRibbon,
  type Layer,
  LAYER_SETTINGS,
  type LayerSettingName,
  listed,
  type NumberDeclaration,
  type NumberSetting,
  numbersOfShape,
  RIBBON_SETTINGS,
  type Setting,
  settingsByName,
  type Step,
  STEP_SETTINGS,
  stepSettings,
  stepsOf,
  stepTable,
} from '../../document/index.ts';
import { mix } from '../../maths/index.ts';
import { frameReaders } from '../scene/orientation.ts';
import { ColourPart } from '../values/colourPart.ts';
import { ColourReader } from '../values/colourReader.ts';
import { NumberReader } from '../values/numberReader.ts';
import { AXIS_NAMES } from '../values/vectorReader.ts';

/** Numbers that all particles of a layer share, at most; and words that each has of its own. */
export const MOST_SHARED = 128;
export const OWN_WORDS = 8;

/** Numbers of a layer's own settings that the stage draws with, beside those that every record holds. */
export const SHOWN_SETTINGS = [
  'life.width',
  'life.height',
  'life.depth',
  'appearance.lengthening',
  'appearance.pivotAcross',
  'appearance.pivotAlong',
  'appearance.wrapDepth',
  'appearance.litShare',
  'appearance.covers',
  'appearance.threshold',
  'appearance.nudge',
] as const satisfies readonly LayerSettingName[];

/** Where a number stands in a frame: among the values all particles of its layer share, or among those of each. */
export interface ValuePlace {
  readonly kind: 'shared' | 'own';
  readonly at: number;
}

/** One number that the stage draws with. */
export interface LookNumber extends ValuePlace {
  /** A layer's setting by its name, or one of a step as in "step/ID/softness". */
  readonly name: string;
  /** The look of a part of a mesh that it belongs to; then its name has the look before it. */
  readonly part: PartLook | null;
  readonly reader: NumberReader | ColourPart;
}

/**
 * Which numbers a layer is drawn with and where each stands in a frame. A number that is the same for all particles at one
 * moment is written once; the others are written for each, as long as there is room.
 */
export interface LookPlan {
  /** Tells one plan from another: frames carry it, so that nothing is drawn by the numbers of a look it no longer has. */
  readonly id: number;
  readonly numbers: readonly LookNumber[];
  /** Where the seconds each has lived stand, if a step reads them. */
  readonly secondsAt: number | null;
  /** Words that all particles share, a multiple of four. */
  readonly sharedWords: number;
  /** Words that each particle has, a multiple of four. */
  readonly ownWords: number;
  /** Numbers that differ between particles and had no room: all particles show their middle. */
  readonly refused: readonly { readonly step: Id | null; readonly word: string }[];
}

/** The look of a part of a mesh, and what the number is called in it. */
interface PartLook {
  readonly look: Id;
  readonly name: string;
}

interface Asked {
  readonly name: string;
  readonly part?: PartLook;
  readonly step?: Id;
  /** What it is called, for people. */
  readonly word: string;
  readonly reader: NumberReader | ColourPart;
}

/** What numbers are looked up for; `group` is the scale of the groups that the layer stands in. */
interface Around {
  readonly effect: Effect;
  readonly group: number;
}

const numberOf = (
  name: string,
  setting: NumberSetting,
  declaration: NumberDeclaration,
  { effect, group }: Around,
): Asked => ({
  name,
  word: declaration.name,
  reader: new NumberReader(setting, declaration, name, effect, { group }),
});

/** The tilt and the axle of particles in frames of their own, as in "life.tilt/x", where anything shapes them. */
const ofFrames = (layer: Layer, { effect }: Around): Asked[] =>
  frameReaders(layer, effect).flatMap(({ name, reader }) =>
    reader.isShaped
      ? reader.axes.map((axis, n) => ({
          name: `${name}/${AXIS_NAMES[n]}`,
          word: LAYER_SETTINGS[name].name,
          reader: axis,
        }))
      : [],
  );

/** Numbers and colours of a table of settings, each under a name that begins with `before`. A colour that all share for good is none. */
function ofTable(
  before: string,
  table: Readonly<Record<string, Declaration>>,
  settings: Readonly<Record<string, Setting>>,
  around: Around,
): Asked[] {
  return Object.entries(table).flatMap(([name, declaration]) => {
    const [setting, whole] = [settings[name]!, `${before}/${name}`];
    if (declaration.value === 'number') return [numberOf(whole, setting as NumberSetting, declaration, around)];
    if (declaration.value !== 'colour' || isStill(setting)) return [];
    const colour = new ColourReader(setting as ColourSetting, declaration, whole, around.effect, around);
    return ([0, 1, 2] as const).map((part) => ({
      name: `${whole}/${COLOUR_PARTS[part]}`,
      word: declaration.name,
      reader: new ColourPart(colour, part),
    }));
  });
}

/** What the parts of a colour are called, as in "step/ID/colour/red". */
export const COLOUR_PARTS = ['red', 'green', 'blue'] as const;

/** Whether a colour is one for all particles at any time. */
export const isStill = ({ base, shapers, muted }: Setting): boolean =>
  muted || (base.kind === 'fixed' && listed(shapers).every(({ item }) => item.muted));

/** Numbers of what a layer's particles are drawn as, as in "drawn/reach"; all but one of ribbons are in their joints. */
function ofDrawn({ drawn }: Layer, around: Around): Asked[] {
  if (drawn.kind === 'sprite') return [];
  const settings = settingsByName(drawn);
  if (!isRibbon(drawn)) return ofTable('drawn', DRAWN_SETTINGS[drawn.kind], settings, around);
  return [numberOf('drawn/tile', settings['tile'] as NumberSetting, RIBBON_SETTINGS[drawn.kind].tile, around)];
}

/** What of a step's table is read: a drawn shape is made of some numbers only. */
function tableRead(step: Step): Readonly<Record<string, Declaration>> {
  const table = stepTable(step.kind);
  if (step.kind !== 'drawn') return table;
  const read = ['amount', ...numbersOfShape(actingValue(step.settings.shape, STEP_SETTINGS.drawn.shape))];
  return Object.fromEntries(
    Object.entries(table).filter(([name, { value }]) => value !== 'number' || read.includes(name)),
  );
}

const ofSteps = (steps: readonly { id: Id; item: Step }[], around: Around): Asked[] =>
  steps.flatMap(({ id, item }) =>
    item.muted
      ? []
      : ofTable(`step/${id}`, tableRead(item), stepSettings(item), around).map((own) => ({ ...own, step: id })),
  );

/** Numbers of the looks that parts of a mesh have, as in "part/LOOK/step/ID/softness". */
function ofParts({ drawn }: Layer, around: Around): Asked[] {
  if (drawn.kind !== 'mesh') return [];
  const looks = [...new Set(drawn.parts.map(({ look }) => look))];
  return looks.flatMap((look) =>
    ofSteps(listed(around.effect.looks.byId[look]!.steps), around).map(({ step: _, ...number }) => ({
      ...number,
      name: `part/${look}/${number.name}`,
      part: { look, name: number.name },
    })),
  );
}

function asked(layer: Layer, around: Around): Asked[] {
  const own = SHOWN_SETTINGS.map((name) =>
    numberOf(name, layer.settings[name] as NumberSetting, LAYER_SETTINGS[name] as NumberDeclaration, around),
  );
  return [
    ...own,
    ...ofFrames(layer, around),
    ...ofDrawn(layer, around),
    ...ofParts(layer, around),
    ...ofSteps(stepsOf(around.effect, layer), around),
  ];
}

/** Whether a step runs by the clock of each particle. */
const readsSeconds = (step: Step): boolean =>
  !step.muted &&
  (step.kind === 'scroll' ||
    (step.kind === 'picture' && actingValue(step.settings.plays, STEP_SETTINGS.picture.plays) === 'by the clock'));

/** The numbers a layer is drawn with; `group` is the scale of the groups it stands in. */
export function lookPlan(effect: Effect, layer: Layer, group = 1): LookPlan {
  const numbers: LookNumber[] = [];
  const refused: { step: Id | null; word: string }[] = [];
  const secondsAt = stepsOf(effect, layer).some(({ item }) => readsSeconds(item)) ? 0 : null;
  let [shared, own] = [0, secondsAt === null ? 0 : 1];
  let id = 0x9e3779b9;
  for (const { name, part = null, step = null, word, reader } of asked(layer, { effect, group })) {
    const differs = !reader.isShared;
    const hasRoom = own < OWN_WORDS;
    if (differs && !hasRoom) refused.push({ step, word });
    const kind = differs && hasRoom ? 'own' : 'shared';
    if (kind === 'shared' && shared >= MOST_SHARED) {
      refused.push({ step, word });
      continue;
    }
    const at = kind === 'own' ? own++ : shared++;
    numbers.push({ name, part, reader, kind, at });
    for (let c = 0; c < name.length; c++) id = mix(id ^ name.charCodeAt(c));
    id = mix(id ^ (kind === 'own' ? at + 1 : -1 - at));
  }
  if (secondsAt !== null) id = mix(id);
  const whole = (words: number) => Math.ceil(words / 4) * 4;
  return { id: id >>> 0, numbers, secondsAt, sharedWords: whole(shared), ownWords: whole(own), refused };
}
