import { describe, expect, it } from 'vitest';
import {
  atEffect,
  collectionOf,
  defaultSetting,
  FORCE_KINDS,
  LAYER_SETTINGS,
  newEffect,
  newForce,
  newLayer,
  settingsByName,
  setNumber,
  tableByName,
  FORCES,
  type Declaration,
  type Effect,
  type ForceKind,
  type Setting,
} from '../../document/index.ts';
import { playAlone } from '../world/world.ts';

/** A value of a setting that is not what it is by default. */
function another(declaration: Declaration): unknown {
  switch (declaration.value) {
    case 'number': {
      const plain = typeof declaration.byDefault === 'number' ? declaration.byDefault : declaration.byDefault[1];
      const more = plain + Math.max(1, Math.abs(plain));
      return Math.min(declaration.most, declaration.whole ? Math.ceil(more) : more);
    }
    case 'vector':
      return declaration.byDefault.map((one) => Math.min(declaration.most, one + 0.7));
    case 'colour':
      return { hex: '#123456' };
    case 'choice':
      return declaration.choices.find((choice) => choice !== declaration.byDefault);
    case 'switch':
      return !declaration.byDefault;
  }
}
function mote(force: ForceKind | null = null): Effect {
  const effect = newEffect('Test', 9);
  const layer = newLayer('Motes', 5);
  layer.source = { kind: 'ring', place: atEffect([0, 1, 0], [20, 0, 0]) };
  setNumber(layer, 'births.rate', 90);
  setNumber(layer, 'births.life', 0.5);
  if (force) layer.forces = collectionOf([['f', newForce(force, atEffect([0.3, 1, 0]))]]);
  effect.layers = collectionOf([['m', layer]]);
  return effect;
}
/** What of the layer's particles there is after half a second, bit for bit. */
function played(effect: Effect): string {
  const world = playAlone(effect, new Map());
  world.advance(30);
  return world.hash()!;
}
const mutedBeside = (
  effect: Effect,
  holder: object,
  name: string,
  declaration: Declaration,
  by: 'muted' | 'default',
) => {
  const setting = settingsByName<Setting>(holder as never)[name]!;
  if (by === 'muted') Object.assign(setting, { base: { kind: 'fixed', value: another(declaration) }, muted: true });
  else Object.assign(setting, defaultSetting(declaration));
  return played(effect);
};

describe('a setting that is muted', () => {
  const own = Object.entries(LAYER_SETTINGS as Record<string, Declaration>).filter(
    ([, { value, ...rest }]) => value !== 'number' || typeof (rest as { byDefault: unknown }).byDefault === 'number',
  );
  it.each(own)('of a layer, %s, does what it does by default', (name, declaration) => {
    const [muted, plain] = [mote(), mote()];
    const of = (effect: Effect) => effect.layers.byId['m']!;
    expect(mutedBeside(muted, of(muted), name, declaration, 'muted')).toBe(
      mutedBeside(plain, of(plain), name, declaration, 'default'),
    );
  });

  it.each(FORCE_KINDS)('of a force, %s, does so too', (kind) => {
    const table = tableByName<Declaration>(FORCES[kind].settings);
    for (const [name, declaration] of Object.entries(table)) {
      const [muted, plain] = [mote(kind), mote(kind)];
      const of = (effect: Effect) => effect.layers.byId['m']!.forces.byId['f']!;
      expect(mutedBeside(muted, of(muted), name, declaration, 'muted'), name).toBe(
        mutedBeside(plain, of(plain), name, declaration, 'default'),
      );
    }
  });
});
