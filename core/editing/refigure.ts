import { listed, refsTo, structuredCopy, type Effect } from '../document/index.ts';

/** Another figure in the place of one: its asset, its clips, and the bones that take the places of those that are named. */
export interface OtherFigure {
  readonly asset: string;
  readonly bones: Readonly<Record<string, string>>;
  readonly clips: readonly string[];
}

type Holder = { bone?: string; bones?: string[] };

/** What names bones of the things that show a figure. */
const holdersOf = (effect: Effect, asset: string): Holder[] =>
  listed(effect.stage.things).flatMap(({ id, item }) =>
    item.asset === asset ? refsTo(effect, 'things', id).map(({ holder }) => holder as Holder) : [],
  );

const linkedIn = (effect: Effect) => listed(effect.groups).flatMap(({ item }) => item.linked ?? []);

/** The figures that stand on an effect's stage, and on those of what is linked into it, by hash. */
export const figuresOf = (effect: Effect): string[] => [
  ...new Set([
    ...listed(effect.stage.things).map(({ item }) => item.asset),
    ...linkedIn(effect).flatMap((linked) => figuresOf(linked.effect)),
  ]),
];

/** The bones of a figure that an effect names, what is linked into it included. */
export const bonesUsed = (effect: Effect, asset: string): string[] => [
  ...new Set([
    ...holdersOf(effect, asset).flatMap(({ bone, bones }) => [...(bone ? [bone] : []), ...(bones ?? [])]),
    ...linkedIn(effect).flatMap((linked) => bonesUsed(linked.effect, asset)),
  ]),
];

/** An effect put on another figure. A clip that the figure does not have becomes its first. */
export function refigured(effect: Effect, from: string, to: OtherFigure): Effect {
  const made = structuredCopy(effect);
  replaceIn(made, from, to);
  return made;
}

function replaceIn(draft: Effect, from: string, { asset, bones, clips }: OtherFigure): void {
  const other = (bone: string) => (Object.hasOwn(bones, bone) ? bones[bone]! : bone);
  for (const holder of holdersOf(draft, from)) {
    if (holder.bone) holder.bone = other(holder.bone);
    if (holder.bones) holder.bones = [...new Set(holder.bones.map(other))];
  }
  for (const { item } of listed(draft.stage.things)) {
    if (item.asset !== from) continue;
    if (item.clip !== '' && !clips.includes(item.clip)) item.clip = clips[0] ?? '';
    item.asset = asset;
  }
  for (const linked of linkedIn(draft)) replaceIn(linked.effect, from, { asset, bones, clips });
}
