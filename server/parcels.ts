import type { ParcelChoice, ParcelClash, TakenParcel } from '@jinx/core/answers';
import { canonicalText, readKept, type Effect } from '@jinx/core/document';
import { keepAsset } from './assets.ts';
import type { Session } from './database.ts';
import { addEffect, replaceEffect, type Written } from './effects/index.ts';
import { Refusal } from './errors.ts';
import type { FileParcel } from './workers/tasks.ts';

/** What to do with each: keep both, write the project's effect over, or use the asset that the project has. */
export type ParcelChoices = Readonly<Record<string, ParcelChoice>>;

/** What came of a parcel, and what was written of effects. */
export interface Taken extends TakenParcel {
  readonly written: Written;
}

function freeName(wish: string, taken: ReadonlySet<string>): string {
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

/** The effect of a project that is this one, whatever it is called. */
async function sameEffect(session: Session, effects: readonly Named[], effect: Effect): Promise<Named | null> {
  const text = canonicalText(effect);
  const length = text.length - JSON.stringify(effect.name).length;
  for (const each of effects.filter((one) => one.length - JSON.stringify(one.name).length === length)) {
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

/**
 * Takes a parcel into a project, all of it or nothing. What the project has already is shared; a second time changes
 * nothing.
 * @throws Refusal 409 with what has the name of something else, until it is chosen what to do with each.
 */
export async function takeParcel(
  session: Session,
  projectId: string,
  parcel: FileParcel,
  choices: ParcelChoices,
  author: string,
): Promise<Taken> {
  await session.query('select 1 from projects where id = $1 for no key update', [projectId]);
  const assets = await session.query<{ hash: string; name: string; kind: string }>(
    'select hash, name, kind from project_assets join assets using (hash) where project_id = $1 and deleted_at is null',
    [projectId],
  );
  const here = new Map(assets.rows.map(({ hash, name }) => [hash, name]));
  const namesakes = parcel.assets.flatMap((asset) => {
    const other = assets.rows.find(({ name, kind }) => name === asset.name && kind === asset.kind);
    return !here.has(asset.hash) && other ? [{ asset, other }] : [];
  });
  const replaced = new Map(
    namesakes.flatMap(({ asset, other }) =>
      choices[asset.hash] === 'present' ? [[asset.hash, other.hash] as const] : [],
    ),
  );
  const effect = withAssets(parcel.effect, replaced);
  const effects = await session.query<Named>(
    'select id, name, length(document) as length from effects where project_id = $1 and deleted_at is null order by name, id',
    [projectId],
  );
  const written: Written = new Map();
  const known = await sameEffect(session, effects.rows, effect);
  const isWhole = parcel.assets.every(({ hash }) => here.has(hash) || replaced.has(hash));
  if (known && isWhole) return { id: known.id, name: known.name, isKnown: true, written };

  const namesake = known ? undefined : effects.rows.find(({ name }) => name === effect.name);
  const clashes: ParcelClash[] = [
    ...(namesake ? [{ of: 'effect', kind: 'effect', name: effect.name } as const] : []),
    ...namesakes.map(({ asset }) => ({ of: asset.hash, kind: asset.kind, name: asset.name })),
  ].filter(({ of }) => !Object.hasOwn(choices, of));
  if (clashes.length > 0)
    throw new Refusal(
      409,
      'parcel-clash',
      'Some of this parcel has the name of something else here: choose what to do.',
      {
        clashes,
      },
    );

  const taken = new Set(here.values());
  for (const asset of parcel.assets) {
    if (replaced.has(asset.hash)) continue;
    const isNamesake = namesakes.some((one) => one.asset === asset);
    const name = isNamesake ? freeName(asset.name, taken) : asset.name;
    taken.add(name);
    await keepAsset(session, projectId, { ...asset, name, content: asset.file });
  }
  if (known) return { id: known.id, name: known.name, isKnown: false, written };
  if (namesake && choices['effect'] === 'over') {
    await replaceEffect(session, namesake.id, effect, `take a parcel over ${effect.name}`, author, written);
    return { id: namesake.id, name: effect.name, isKnown: false, written };
  }
  const name = namesake ? freeName(effect.name, new Set(effects.rows.map((one) => one.name))) : effect.name;
  const { id } = await addEffect(session, projectId, { ...effect, name }, author);
  return { id, name, isKnown: false, written };
}
