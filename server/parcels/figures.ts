import type { ParcelFigure } from '@jinx/core/answers';
import { figuresOf, refigured } from '@jinx/core/editing';
import { assetsOf } from '@jinx/core/formats';
import { assetFiles, type AssetRow } from '../assets.ts';
import type { Session } from '../database.ts';
import { Refusal } from '../errors.ts';
import type { House } from '../house.ts';
import type { FileParcel, FittingFigure } from '../workers/parcels.ts';

/** Figures of a project that are tried for one that came; the latest. */
const MOST_TRIED = 16;
/** What is chosen for a figure that is to stay as it came. */
const OWN = 'own';

type Bones = Readonly<Record<string, string>>;

/** A figure of a parcel that the project does not have, and those of the project that its effects may be put on. */
export interface NewFigure {
  readonly hash: string;
  readonly name: string;
  readonly others: readonly (FittingFigure & { readonly kept: Bones | null })[];
  /** The one its effects were put on the last time. */
  readonly last: string | null;
}

/** Finds what the figures of a parcel may be put on. Reads figures of the project, in a thread. */
export async function newFigures(
  { database, workers }: Pick<House, 'database' | 'workers'>,
  projectId: string,
  { effects, assets }: FileParcel,
  folder: string,
): Promise<NewFigure[]> {
  const { rows } = await database.query<AssetRow & { isOut: boolean }>(
    `select hash, name, kind, licence, size::float8 as bytes, deleted_at is not null as "isOut"
     from project_assets join assets using (hash) where project_id = $1 and kind = 'rig' order by added_at desc, hash`,
    [projectId],
  );
  const used = new Set(effects.flatMap(({ effect }) => figuresOf(effect)));
  const figures = assets.filter(({ hash }) => used.has(hash) && !rows.some((row) => row.hash === hash && !row.isOut));
  const candidates = rows.filter(({ isOut }) => !isOut).slice(0, MOST_TRIED);
  if (figures.length === 0 || candidates.length === 0) return [];
  const others = await assetFiles(database, candidates, folder);
  const found: NewFigure[] = [];
  for (const from of figures) {
    const fitting = await workers.run('matchFigures', { from, others, effects: effects.map(({ effect }) => effect) });
    const kept = await database.query<{ to: string; bones: Bones }>(
      'select to_hash as "to", bones from bone_maps where project_id = $1 and from_hash = $2 order by made_at desc',
      [projectId, from.hash],
    );
    const known = kept.rows.filter(({ to }) => fitting.some(({ hash }) => hash === to));
    found.push({
      ...{ hash: from.hash, name: from.name, last: known[0]?.to ?? null },
      others: fitting.map((figure) => ({
        ...figure,
        kept: known.find(({ to }) => to === figure.hash)?.bones ?? null,
      })),
    });
  }
  return found.filter((figure) => figure.others.length > 0);
}

/** What is asked about a figure: where a map was kept, its bones come first. */
export const asQuestion = ({ hash, name, others }: NewFigure): ParcelFigure => ({
  ...{ hash, name },
  others: others.map((other) => ({
    ...{ hash: other.hash, name: other.name, bones: [...other.bones] },
    matches: other.matches.map((match) => {
      const kept = other.kept?.[match.bone];
      return kept !== undefined && other.bones.includes(kept) ? { bone: match.bone, to: kept, by: 'kept' } : match;
    }),
  })),
});

/** What came of putting a parcel's effects on other figures. */
interface PutOn {
  readonly parcel: FileParcel;
  /** By the hash of the figure that came. */
  readonly maps: ReadonlyMap<string, { readonly to: string; readonly bones: Bones }>;
}

/** Puts a parcel's effects on the figures that were chosen; a figure that none uses any more is left out. */
export function putOnFigures(
  parcel: FileParcel,
  figures: readonly NewFigure[],
  chosen: Readonly<Record<string, string>>,
): PutOn {
  let { effects } = parcel;
  const maps = new Map<string, { to: string; bones: Bones }>();
  for (const figure of figures) {
    const to = Object.hasOwn(chosen, figure.hash) ? chosen[figure.hash]! : (figure.last ?? OWN);
    if (to === OWN) continue;
    const other = figure.others.find(({ hash }) => hash === to);
    const asked = asQuestion(figure).others.find(({ hash }) => hash === to);
    if (!other || !asked)
      throw new Refusal(400, 'request', 'The figure that was chosen for the parcel is not in the project.');
    const bones = Object.fromEntries(asked.matches.map((match) => [match.bone, match.to]));
    effects = effects.map((each) => ({
      ...each,
      effect: refigured(each.effect, figure.hash, { asset: to, bones, clips: other.clips }),
    }));
    maps.set(figure.hash, { to, bones });
  }
  const used = new Set(effects.flatMap(({ effect }) => assetsOf(effect)));
  const assets = parcel.assets.filter(({ hash }) => !maps.has(hash) || used.has(hash));
  return { parcel: { ...parcel, effects, assets }, maps };
}

/** Whether it has to be chosen what a figure's effects stand on. */
export const isOpen = (figure: NewFigure, chosen: Readonly<Record<string, string>>): boolean =>
  figure.last === null && !Object.hasOwn(chosen, figure.hash);

/** Keeps which bones of a project's figure take the places of those of another. To be run in one transaction. */
export async function keepBones(
  session: Session,
  projectId: string,
  from: string,
  to: string,
  bones: Bones,
): Promise<void> {
  await session.query(
    `insert into bone_maps (project_id, from_hash, to_hash, bones) values ($1, $2, $3, $4)
     on conflict (project_id, from_hash, to_hash) do update set bones = excluded.bones, made_at = now()`,
    [projectId, from, to, JSON.stringify(bones)],
  );
}
