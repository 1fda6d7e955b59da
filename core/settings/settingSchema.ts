import * as z from '../zod/index.ts';
import type { Declaration, SettingsOf } from './declaration.ts';
import { COMBINES } from './declaration.ts';
import {
  choiceSettingSchema,
  colourSettingSchema,
  numberSettingSchema,
  switchSettingSchema,
  vectorSettingSchema,
  type Setting,
  type SettingOfValue,
} from './setting.ts';
import { emptyCollection } from './collection.ts';

const SCHEMAS = {
  number: numberSettingSchema,
  vector: vectorSettingSchema,
  colour: colourSettingSchema,
  choice: choiceSettingSchema,
  switch: switchSettingSchema,
} as const;

/** The shape of every setting of a type of value. */
export const schemaOfValue = (value: Declaration['value']): z.ZodType => SCHEMAS[value];

/** The numbers a base holds: each must lie within the declared limits. */
function numbersOf(base: Setting['base']): number[] {
  if (base.kind === 'fixed')
    return typeof base.value === 'number' ? [base.value] : Array.isArray(base.value) ? base.value : [];
  if (base.kind === 'spread' && (typeof base.low === 'number' || Array.isArray(base.low)))
    return [base.low, base.high as number | number[]].flat();
  if (base.kind === 'set') return base.values.flatMap(({ value }) => (typeof value === 'number' ? [value] : []));
  return [];
}

function problemWithBase(declaration: Declaration, base: Setting['base']): string | null {
  if (declaration.value === 'number' || declaration.value === 'vector') {
    const { least, most } = declaration;
    const outside = numbersOf(base).find((value) => !(value >= least && value <= most));
    if (outside !== undefined)
      return `${declaration.name} is ${outside}; it may be ${least} to ${most} ${declaration.unit}`.trim();
  }
  if (declaration.value === 'number') {
    if (!declaration.bases.includes(base.kind as never)) return `${declaration.name} cannot be ${base.kind}`;
    if (declaration.whole && numbersOf(base).some((value) => value !== Math.floor(value)))
      return `${declaration.name} is a whole number`;
  }
  if (declaration.value === 'vector' && base.kind === 'spread' && !declaration.mayVary)
    return `${declaration.name} is one for all`;
  if (declaration.value === 'colour' && base.kind === 'taken' && !declaration.mayBeTaken)
    return `${declaration.name} is not kept at birth: it cannot be taken`;
  if (base.kind === 'set' && base.values.every(({ weight }) => weight === 0))
    return `${declaration.name} has no value with a weight above 0`;
  if (declaration.value === 'choice' && base.kind === 'fixed' && !declaration.choices.includes(base.value as string))
    return `${declaration.name} is one of: ${declaration.choices.join(', ')}`;
  return null;
}

/** The schema of one setting: the shape of its value type, held to its declaration. */
export function settingSchema(declaration: Declaration): z.ZodType<Setting> {
  return SCHEMAS[declaration.value].superRefine((setting: Setting, context) => {
    const problem = problemWithBase(declaration, setting.base);
    if (problem) context.addIssue({ code: 'custom', path: ['base'], message: problem });
    for (const [id, shaper] of Object.entries(setting.shapers.byId)) {
      const path = ['shapers', 'byId', id];
      if (!declaration.reads.includes(shaper.reads.kind))
        context.addIssue({
          code: 'custom',
          path: [...path, 'reads'],
          message: `${declaration.name} cannot be shaped by ${shaper.reads.kind}`,
        });
      if (shaper.amountBy && !declaration.reads.includes(shaper.amountBy.reads.kind))
        context.addIssue({
          code: 'custom',
          path: [...path, 'amountBy', 'reads'],
          message: `how far ${declaration.name} is blended cannot hang on ${shaper.amountBy.reads.kind}`,
        });
      if (shaper.axis && declaration.value !== 'vector')
        context.addIssue({
          code: 'custom',
          path: [...path, 'axis'],
          message: `${declaration.name} has no axes`,
        });
      if (!COMBINES[declaration.value].includes(shaper.combine))
        context.addIssue({
          code: 'custom',
          path: [...path, 'combine'],
          message: `${declaration.name} cannot be combined by ${shaper.combine}`,
        });
      if ((shaper.mapping.kind === 'gradient') !== (declaration.value === 'colour'))
        context.addIssue({
          code: 'custom',
          path: [...path, 'mapping'],
          message: `${declaration.name} cannot be mapped by a ${shaper.mapping.kind}`,
        });
    }
  }) as unknown as z.ZodType<Setting>;
}

export function settingsSchema<T extends Record<string, Declaration>>(table: T): z.ZodType<SettingsOf<T>> {
  const shape = Object.fromEntries(
    Object.entries(table).map(([name, declaration]) => [name, settingSchema(declaration)]),
  );
  return z.strictObject(shape) as unknown as z.ZodType<SettingsOf<T>>;
}

/** What a choice or a switch says now: muted, what it says where nothing is set. */
export const actingValue = <T extends string | boolean>(
  { muted, base }: { readonly muted: boolean; readonly base: { readonly value: T } },
  { byDefault }: { readonly byDefault: T },
): T => (muted ? byDefault : base.value);

/** The setting a declaration gives where nothing was set. */
export function defaultSetting<D extends Declaration>(declaration: D): SettingOfValue[D['value']] {
  const plain: Declaration = declaration;
  const rest = { shapers: emptyCollection(), muted: false };
  if (plain.value === 'number' && typeof plain.byDefault !== 'number')
    return {
      base: { kind: 'spread', low: plain.byDefault[0], high: plain.byDefault[1] },
      ...rest,
    } as unknown as SettingOfValue[D['value']];
  const value =
    plain.value === 'colour'
      ? { hex: plain.byDefault }
      : plain.value === 'vector'
        ? [...plain.byDefault]
        : plain.byDefault;
  return { base: { kind: 'fixed', value }, ...rest } as unknown as SettingOfValue[D['value']];
}

export function defaultSettings<T extends Record<string, Declaration>>(table: T): SettingsOf<T> {
  return Object.fromEntries(
    Object.entries(table).map(([name, declaration]) => [name, defaultSetting(declaration)]),
  ) as unknown as SettingsOf<T>;
}
