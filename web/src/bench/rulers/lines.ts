import { settingsOfLayer, type Effect, type NumberDeclaration, type NumberSetting } from '@jinx/core/document';
import { holderIn } from '../holders';
import { ageShaper } from '../shapers';

/** A line on the life sheet: one number of a layer, or of a part of it, as age shapes it. */
export interface LifeLine {
  /** Tells it from the others; as in "life.size" or "force/ID/strength". */
  readonly key: string;
  readonly of: string | undefined;
  readonly setting: string;
  readonly word: string;
}

/** Lines that are always there, shaped or not. */
const ALWAYS = ['life.size', 'life.opacity', 'life.intensity'];
export const FIRST_LINE = ALWAYS[0]!;

export const lineKey = (of: string | undefined, setting: string): string => (of ? `${of}/${setting}` : setting);

/** A number's name, with whose it is where that is not plain. */
function wordFor(effect: Effect, layerId: string, of: string, name: string): string {
  const [part, id = ''] = of.split('/');
  const layer = effect.layers.byId[layerId]!;
  if (part === 'force') return `${layer.forces.byId[id]?.kind ?? 'force'} ${name}`;
  const steps = layer.look.kind === 'own' ? layer.look.steps : effect.looks.byId[layer.look.look]?.steps;
  return part === 'step' ? `${steps?.byId[id]?.kind ?? 'look'} ${name}` : name;
}

/** The lines of a layer: size, opacity and intensity, then every other number that age shapes. */
export function linesOf(effect: Effect, layerId: string): LifeLine[] {
  const isLine = (name: string, setting: NumberSetting) => ALWAYS.includes(name) || ageShaper(setting) !== null;
  const all = settingsOfLayer(effect, layerId).flatMap(({ of, name, declaration, setting }): LifeLine[] =>
    declaration.value === 'number' && isLine(name, setting as NumberSetting)
      ? [
          {
            key: lineKey(of, name),
            of: of || undefined,
            setting: name,
            word: wordFor(effect, layerId, of, declaration.name),
          },
        ]
      : [],
  );
  const rank = ({ key }: LifeLine) => (ALWAYS.includes(key) ? ALWAYS.indexOf(key) : ALWAYS.length);
  return all.sort((a, b) => rank(a) - rank(b));
}

/** A line's setting and what declares it; null when either is gone. */
export function readLine(
  effect: Effect,
  layerId: string,
  line: LifeLine,
): { setting: NumberSetting; declaration: NumberDeclaration } | null {
  const holder = holderIn(effect, layerId, line.of);
  const setting = holder?.settings[line.setting] as NumberSetting | undefined;
  return setting ? { setting, declaration: holder!.table[line.setting] as NumberDeclaration } : null;
}
