import { randomUUID } from 'node:crypto';
import type { ParcelChoices, ParcelClash, TakenParcel } from '@jinx/core/answers';
import { canonicalText, readKept, type Effect } from '@jinx/core/document';
import { withLinkedIds } from '@jinx/core/editing';
import { keepAsset } from '../assets.ts';
import type { Session } from '../database.ts';
import { addEffect, replaceEffect, type Written } from '../effects/index.ts';
import { Refusal } from '../errors.ts';
import type { FileAsset } from '../workers/outcome.ts';
import type { FileParcel } from '../workers/parcels.ts';
import { asQuestion, isOpen, keepBones, putOnFigures, type NewFigure } from './figures.ts';

/** What came of a parcel, and what was written of effects. */
export interface Taken extends TakenParcel {
  readonly written: Written;
}

function freeName(wish: string, taken: ReadonlySet<string>): string {
  if (!taken.has(wish)) return wish;
  for (let n = 2; ; n++) {
    const name = `${wish.slice(0, 74)} ${n}`;
    if (!taken.has(name)) return name;
  }
}

interface Named {
  readonly id: string;
  readonly name: string;
  readonly length: number;
}

/** The effect of a project that is this one: that of its name, or else whatever it is called. */
async function sameEffect(session: Session, effects: readonly Named[], effect: Effect): Promise<Named | null> {
  const text = canonicalText(effect);
  const length = text.length - JSON.stringify(effect.name).length;
  const alike = effects.filter((one) => one.length - JSON.stringify(one.name).length === length);
  const isNamed = ({ name }: Named) => name === effect.name;
  for (const each of [...alike.filter(isNamed), ...alike.filter((one) => !isNamed(one))]) {
    const { rows } = await session.query<{ document: string }>('select document from effects where id = $1', [
      each.id,
    ]);
    const document = JSON.parse(rows[0]!.document) as Effect;
    if (canonicalText({ ...document, name: effect.name }) === text) return each;
  }
  return null;
}

/** The effect with assets of its own replaced by those of the project. */
function withAssets(effect: Effect, replaced: ReadonlyMap<string, string>): Effect {
  if (replaced.size === 0) return effect;
  let text = canonicalText(effect);
  for (const [from, to] of replaced) text = text.replaceAll(from, to);
  return readKept(text);
}

type ParcelEffect = FileParcel['effects'][number];
/** What becomes of an effect of a parcel in the project. */
interface PlannedEffect {
  readonly of: ParcelEffect;
  readonly id: string;
  readonly effect: Effect;
  readonly known: Named | null;
  readonly namesake: Named | null;
}

/** Finds what of a parcel's effects is here already. Each comes after those it is made of, so that it is known by their ids here. */
async function planEffects(
  session: Session,
  here: readonly Named[],
  effects: readonly ParcelEffect[],
  replaced: ReadonlyMap<string, string>,
  clashes: ParcelChoices['clashes'],
): Promise<PlannedEffect[]> {
  const ids = new Map<string, string>();
  const planned: PlannedEffect[] = [];
  for (const of of effects) {
    const effect = withLinkedIds(withAssets(of.effect, replaced), ids);
    const known = await sameEffect(session, here, effect);
    const namesake = known ? null : (here.find(({ name }) => name === effect.name) ?? null);
    const id = known?.id ?? (clashes[of.file] === 'over' ? namesake?.id : undefined) ?? randomUUID();
    if (of.linkedAs) ids.set(of.linkedAs, id);
    planned.push({ of, id, effect, known, namesake });
  }
  return planned;
}

/** Assets of a parcel that the project does not have, and those of them that have the name of another. */
async function planAssets(session: Session, projectId: string, assets: readonly FileAsset[]) {
  const { rows } = await session.query<{ hash: string; name: string; kind: string }>(
    'select hash, name, kind from project_assets join assets using (hash) where project_id = $1 and deleted_at is null',
    [projectId],
  );
  const here = new Map(rows.map(({ hash, name }) => [hash, name]));
  const namesakes = assets.flatMap((asset) => {
    const other = rows.find(({ name, kind }) => name === asset.name && kind === asset.kind);
    return !here.has(asset.hash) && other ? [{ asset, other: other.hash }] : [];
  });
  return { here, namesakes };
}

/**
 * Takes a parcel into a project, all of it or nothing. What the project has already is shared; a second time changes
 * nothing.
 * @param figures of the parcel that the project does not have, and what their effects may be put on.
 * @throws Refusal 409 with what has to be chosen, until it is.
 */
export async function takeParcel(
  session: Session,
  projectId: string,
  came: FileParcel,
  figures: readonly NewFigure[],
  choices: ParcelChoices,
  author: string,
): Promise<Taken> {
  await session.query('select 1 from projects where id = $1 for no key update', [projectId]);
  const { parcel, maps } = putOnFigures(came, figures, choices.figures);
  const { here, namesakes } = await planAssets(session, projectId, parcel.assets);
  const replaced = new Map(
    namesakes.flatMap(({ asset, other }) =>
      choices.clashes[asset.hash] === 'present' ? [[asset.hash, other] as const] : [],
    ),
  );
  const effects = await session.query<Named>(
    'select id, name, length(document) as length from effects where project_id = $1 and deleted_at is null order by name, id',
    [projectId],
  );
  const planned = await planEffects(session, effects.rows, parcel.effects, replaced, choices.clashes);
  const written: Written = new Map();
  const answer = (isKnown: boolean, names: ReadonlyMap<string, string>): Taken => ({
    effects: planned.map(({ id, known, effect }) => ({
      id,
      name: known?.name ?? names.get(id) ?? effect.name,
      isKnown: known !== null,
    })),
    ...{ isKnown, written },
  });
  const isWhole = parcel.assets.every(({ hash }) => here.has(hash) || replaced.has(hash));
  if (isWhole && planned.every(({ known }) => known)) return answer(true, new Map());

  mustBeChosen(planned, namesakes, figures, choices);
  for (const [from, { to, bones }] of maps) await keepBones(session, projectId, from, to, bones);
  await keepAssets(session, projectId, parcel.assets, here, replaced);
  const names = new Map<string, string>();
  const taken = new Set(effects.rows.map(({ name }) => name));
  const idOf = new Map(planned.map(({ of, id }) => [of.file, id]));
  for (const { of, id, effect, known, namesake } of planned) {
    if (known) continue;
    if (namesake?.id === id) {
      await replaceEffect(session, id, effect, `take a parcel over ${effect.name}`, author, written);
      continue;
    }
    const name = freeName(effect.name, taken);
    taken.add(name);
    names.set(id, name);
    const siblingOf = of.siblingOf === null ? null : idOf.get(of.siblingOf)!;
    const licence = of.licence || parcel.licence;
    await addEffect(session, projectId, { ...effect, name }, author, { id, siblingOf, licence });
  }
  return answer(false, names);
}

/** Refuses a parcel as long as it is open what to do with a part of it. */
function mustBeChosen(
  planned: readonly PlannedEffect[],
  namesakes: readonly { asset: FileAsset }[],
  figures: readonly NewFigure[],
  choices: ParcelChoices,
): void {
  const clashes: ParcelClash[] = [
    ...planned.flatMap(({ of, namesake }) =>
      namesake ? [{ of: of.file, kind: 'effect', name: namesake.name } as const] : [],
    ),
    ...namesakes.map(({ asset }) => ({ of: asset.hash, kind: asset.kind, name: asset.name })),
  ].filter(({ of }) => !Object.hasOwn(choices.clashes, of));
  const open = figures.filter((figure) => isOpen(figure, choices.figures));
  if (clashes.length > 0 || open.length > 0)
    throw new Refusal(409, 'parcel-question', 'It has to be chosen what to do with a part of this parcel.', {
      clashes,
      figures: figures.filter((figure) => !Object.hasOwn(choices.figures, figure.hash)).map(asQuestion),
    });
}

async function keepAssets(
  session: Session,
  projectId: string,
  assets: readonly FileAsset[],
  here: ReadonlyMap<string, string>,
  replaced: ReadonlyMap<string, string>,
): Promise<void> {
  const taken = new Set(here.values());
  for (const asset of assets) {
    if (replaced.has(asset.hash)) continue;
    const name = here.get(asset.hash) ?? freeName(asset.name, taken);
    taken.add(name);
    await keepAsset(session, projectId, { ...asset, name, content: asset.file });
  }
}
