/** Short words in which whole layers are written down in code. */
import {
  collectionOf,
  curveShaper,
  gradientShaper,
  newDrawn,
  newForce,
  newLayer,
  newStep,
  plainShape,
  setNumber,
  setStep,
  stepSettings,
  type Colour,
  type Force,
  type ForceKind,
  type Id,
  type Layer,
  type LayerSettingName,
  type NumberSetting,
  type Place,
  type Shaper,
  type Source,
  type Step,
  type StepKind,
  type Vector,
  settingsByName,
} from '../document/index.ts';

export type Points = readonly (readonly [number, number])[];
type Amount = number | readonly [low: number, high: number];
/** A number, a spread, or either shaped over age. */
export type Shaped =
  Amount | { readonly base: Amount; readonly over: Points; readonly reads?: 'effectTime' | 'speed' };

/** In until one share of the time, whole until another (the same unless it is given), then out: what most things want. */
export const inAndOut = (whole: number, until = whole): Points => [
  [0, 0],
  [whole, 1],
  ...(until === whole ? [] : [[until, 1] as const]),
  [1, 0],
];

export const hex = (value: string): Colour => ({ hex: value });
export const named = (palette: Id): Colour => ({ palette });

const amountOf = (shaped: Shaped): Amount => (typeof shaped === 'object' && 'base' in shaped ? shaped.base : shaped);
function setShaped(setting: NumberSetting, shaped: Shaped): void {
  const amount = amountOf(shaped);
  setting.base =
    typeof amount === 'number'
      ? { kind: 'fixed', value: amount }
      : { kind: 'spread', low: amount[0], high: amount[1] };
  if (typeof shaped !== 'object' || !('base' in shaped)) return;
  const shaper: Shaper = { ...curveShaper(shaped.over), reads: { kind: shaped.reads ?? 'age' } };
  setting.shapers = collectionOf([['over', shaper]]);
}

/** Sets numbers, choices, switches and vectors of a layer by their names. */
export function set(
  layer: Layer,
  values: Partial<Record<LayerSettingName, Shaped | string | boolean | Vector>>,
): void {
  for (const [name, value] of Object.entries(values)) {
    const setting = layer.settings[name as LayerSettingName];
    if (typeof value === 'string' || typeof value === 'boolean' || (Array.isArray(value) && value.length === 3))
      setting.base = { kind: 'fixed', value } as never;
    else setShaped(setting as NumberSetting, value as Shaped);
  }
}

/** A layer with its source, its values and its look. */
export function layer(
  name: string,
  salt: number,
  source: Source,
  values: Parameters<typeof set>[1],
  ...steps: readonly Step[]
): Layer {
  const made = newLayer(name, salt);
  made.source = source;
  setNumber(made, 'births.rate', 0);
  setNumber(made, 'motion.speed', 0);
  made.settings['life.opacity'].shapers = collectionOf([]);
  set(made, values);
  if (steps.length > 0) made.look = { kind: 'own', steps: collectionOf(steps.map((step, n) => [`s${n + 1}`, step])) };
  return made;
}

/** The same particles as another layer's, dressed otherwise. */
export function follows(
  other: Id,
  name: string,
  salt: number,
  values: Parameters<typeof set>[1],
  ...steps: readonly Step[]
): Layer {
  const made = layer(name, salt, { kind: 'particles', layer: other }, values, ...steps);
  made.source = newLayer(name, salt).source;
  made.population = { kind: 'follows', layer: other };
  return made;
}

/** One colour, or a gradient over age. */
export function colour(made: Layer, ...stops: readonly (readonly [number, Colour])[]): Layer {
  const setting = made.settings['life.colour'];
  if (stops.length === 1) setting.base = { kind: 'fixed', value: stops[0]![1] };
  else setting.shapers = collectionOf([['age', gradientShaper(stops)]]);
  return made;
}

/** A step of a look: its numbers may be shaped over age; a colour is given by its setting's name. */
export function step(kind: StepKind, values: Record<string, Shaped | string | boolean | Colour> = {}): Step {
  const made = newStep(kind) as Step;
  for (const [name, value] of Object.entries(values)) {
    const setting = stepSettings(made)[name]!;
    if (typeof value === 'object' && ('hex' in value || 'palette' in value))
      setting.base = { kind: 'fixed', value } as never;
    else if (typeof value === 'string' || typeof value === 'boolean') setStep(made, name, value);
    else setShaped(setting as NumberSetting, value as Shaped);
  }
  return made;
}
export function gradient(along: string, ...stops: readonly (readonly [number, string])[]): Step {
  const made = newStep('gradient');
  setStep(made, 'along', along);
  made.stops = collectionOf(
    stops.map(([at, value], n) => [`c${n}`, { at: { anchor: 'share', value: at } as const, colour: hex(value) }]),
  );
  return made;
}
export const picture = (asset: string, name: string, values: Parameters<typeof step>[1] = {}): Step => ({
  ...(step('picture', values) as Extract<Step, { kind: 'picture' }>),
  picture: { asset, name },
});

/** A force with its numbers. */
export function force(kind: ForceKind, place: Place | null, values: Record<string, Shaped | string | Vector>): Force {
  const made = place ? newForce(kind, place) : newForce(kind);
  const settings = settingsByName<NumberSetting>(made);
  for (const [name, value] of Object.entries(values)) {
    if (typeof value === 'string' || (Array.isArray(value) && value.length === 3))
      settings[name]!.base = { kind: 'fixed', value } as never;
    else setShaped(settings[name]!, value as Shaped);
  }
  return made;
}
export const forces = (made: Layer, ...all: readonly Force[]): Layer => {
  made.forces = collectionOf(all.map((one, n) => [`f${n + 1}`, one]));
  return made;
};

/** Lets a layer be drawn as a mesh, a light, haze or a skin, with the numbers of that. */
export function drawn<K extends 'mesh' | 'light' | 'haze' | 'body'>(
  made: Layer,
  kind: K,
  values: Record<string, Shaped | string | boolean> = {},
  more: Partial<ReturnType<typeof newDrawn<K>>> = {},
): Layer {
  const as = { ...newDrawn(kind), ...more } as unknown as Layer['drawn'] & {
    settings: Record<string, NumberSetting>;
  };
  const { settings } = as;
  for (const [name, value] of Object.entries(values))
    if (typeof value === 'string' || typeof value === 'boolean')
      settings[name]!.base = { kind: 'fixed', value } as never;
    else setShaped(settings[name]!, value);
  made.drawn = as;
  // Bent air has a ring of its own: the shape that a layer begins with would only make it weaker.
  if (kind === 'haze' && plainShape(made)) made.look = { kind: 'own', steps: collectionOf([]) };
  return made;
}
/** A light that stands at a place and goes with it, as strong over its life, which is the effect's, as `over` says. */
export const standingLight = (
  name: string,
  salt: number,
  place: Place,
  strength: number,
  over: Points,
  tint: Colour,
  values: Parameters<typeof drawn>[2],
): Layer =>
  colour(
    drawn(
      layer(
        name,
        salt,
        { kind: 'point', place },
        {
          'births.standing': 1,
          'motion.ride': 100,
          'life.intensity': { base: strength, over },
        },
      ),
      'light',
      values,
    ),
    [0, tint],
  );
