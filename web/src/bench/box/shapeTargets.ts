import type { Effect, Id, KeyPlace, NumberSetting } from '@jinx/core/document';
import { readNumber, within } from '../entry/numbers';
import { ageShaper } from '../values/shapers';
import { takeInto } from './settingTargets';
import type { Act, Target, Tools } from './target';

/** How long a fade is at first, as a share of a life. */
const FIRST_FADE = { in: '15%', out: '70%' } as const;

/** A place on a life as the box writes it. */
function placeText({ anchor, value }: KeyPlace): string {
  if (anchor === 'share') return `${value * 100}%`;
  return anchor === 'afterBirth' ? `${value} s` : `-${value} s`;
}

/** Where opacity has come in, and where it begins to go, as far as a curve over age says so. */
function fadesOf(setting: NumberSetting): { readonly in: string | null; readonly out: string | null } {
  const mapping = ageShaper(setting)?.shaper.mapping;
  if (mapping?.kind !== 'curve') return { in: null, out: null };
  const keys = mapping.curve.keys.order.map((id) => mapping.curve.keys.byId[id]!);
  const [first, second] = keys;
  const [last, before] = [keys.at(-1), keys.at(-2)];
  return {
    in: first?.value === 0 && second && keys.length > 2 ? placeText(second.at) : null,
    out: last?.value === 0 && before && keys.length > 2 ? placeText(before.at) : null,
  };
}

/** Shapes a setting of the chosen layers over age. */
const shaped = (layer: Id, setting: 'life.opacity' | 'life.size', curve: string, tools: Tools): Act =>
  takeInto({ kind: 'layer', layer, setting }, `over age ${curve}`, tools);

/** What comes of opacity and size over a life by its everyday name: fading in and out, growing, shrinking. */
export function shapeTargets(effect: Effect, layerId: Id): Target[] {
  const layer = effect.layers.byId[layerId];
  if (!layer) return [];
  const fades = fadesOf(layer.settings['life.opacity']);
  const fade = (end: 'in' | 'out', at: string, tools: Tools): Act => {
    const next = { ...fades, [end]: at };
    const comes = next.in === null ? '100%' : `0, 100% at ${next.in}`;
    const goes = next.out === null ? '100%' : `100% at ${next.out}, 0`;
    const act = shaped(layerId, 'life.opacity', `${comes}, ${goes}`, tools);
    return { ...act, text: `opacity over age: ${comes}, ${goes}` };
  };
  const seconds = (text: string) =>
    within(readNumber(text, { unit: 's' }), { name: 'a fade', least: 0.01, most: 3600, unit: 's' });
  const detail = `${layer.name} · life`;
  const shape = (id: string, text: string, otherWords: readonly string[], curve: string): Target => ({
    ...{ id, text, otherWords, detail, previews: true },
    run: (tools) => shaped(layerId, 'life.size', curve, tools).run(tools),
  });
  return [
    {
      ...{ id: 'fade in', text: 'fade in', otherWords: ['opacity rises', 'ramp opacity up'], detail, previews: true },
      help: 'Opacity from nothing; the value is how many seconds it takes',
      run: (tools) => fade('in', FIRST_FADE.in, tools).run(tools),
      take: (text, tools) => fade('in', `${seconds(text)} s`, tools),
    },
    {
      ...{
        id: 'fade out',
        text: 'fade out',
        otherWords: ['opacity falls', 'ramp opacity down'],
        detail,
        previews: true,
      },
      help: 'Opacity to nothing at the end; the value is how many seconds it takes',
      run: (tools) => fade('out', FIRST_FADE.out, tools).run(tools),
      take: (text, tools) => fade('out', `-${seconds(text)} s`, tools),
    },
    shape('grow', 'grow over its life', ['grow', 'size over life', 'scale up', 'swell'], '0, 100%'),
    shape('shrink', 'shrink over its life', ['shrink', 'size over life', 'scale down'], '100%, 0'),
  ];
}
