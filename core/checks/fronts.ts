import { listed, type Effect, type NumberSetting } from '../document/index.ts';
import { releasePreview, type ReleasePreview } from '../simulation/index.ts';
import type { Problem } from './mend.ts';
import type { StageRigs } from './sources.ts';

/** Most that a border may reach, metres. */
const FURTHEST = 100;

interface Kept {
  readonly of: readonly unknown[];
  readonly preview: ReleasePreview | null;
}
/** Previews told last, by the layer they are of; an edit that shares everything they hang on makes none anew. */
const told = new WeakMap<object, Kept>();

/** What a layer's front will free, looked up while nothing it hangs on has changed. */
export function previewOf(effect: Effect, layerId: string, rigs: StageRigs): ReleasePreview | null {
  const layer = effect.layers.byId[layerId];
  if (!layer?.front) return null;
  const of = [effect.fronts, effect.stage, effect.stretches, effect.measures, effect.dials, effect.groups, rigs];
  const known = told.get(layer);
  if (known && known.of.every((part, n) => part === of[n])) return known.preview;
  const byAsset = listed(effect.stage.things).flatMap(({ id, item }) => {
    const rig = rigs.get(id);
    return rig ? [[item.asset, rig] as const] : [];
  });
  const preview = releasePreview(effect, layerId, new Map(byAsset));
  told.set(layer, { of, preview });
  return preview;
}

/** What is never freed by a layer's front, and the way out. */
export function frontProblems(effect: Effect, layerId: string, rigs: StageRigs): Problem[] {
  const layer = effect.layers.byId[layerId]!;
  const preview = previewOf(effect, layerId, rigs);
  if (!preview || layer.front === null || preview.freed >= 1) return [];
  const id = layer.front;
  const front = effect.fronts.byId[id]!;
  const never = Math.max(1, Math.floor((1 - preview.freed) * 100 + 0.5));
  const border = front.settings.border as NumberSetting;
  const further = border.base.kind === 'fixed' ? Math.ceil((border.base.value + preview.lacking) * 110) / 100 : NaN;
  const isBeyond = front.settings.frees.base.value === 'beyond';
  const canGrow = further <= FURTHEST && !border.muted && !isBeyond;
  return [
    {
      id,
      sentence: `${never}% of ${layer.name} is never freed: ${front.name} ${isBeyond ? 'always has it within its border' : 'does not reach that far'}.`,
      mend: canGrow
        ? {
            label: `Let it go ${further} m far`,
            apply: (draft) => {
              const own = listed(draft.fronts).find((each) => each.id === id);
              if (own) own.item.settings.border.base = { kind: 'fixed', value: further };
            },
          }
        : null,
    },
  ];
}
