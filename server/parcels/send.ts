import path from 'node:path';
import { linkedInto } from '@jinx/core/editing';
import { effectFile, MOST_PARCEL_ASSETS, MOST_PARCEL_UNPACKED } from '@jinx/core/formats';
import { assetFiles } from '../assets.ts';
import type { Session } from '../database.ts';
import { Refusal } from '../errors.ts';
import type { House } from '../house.ts';
import { noParcel, type NewParcelEffect } from '../workers/parcels.ts';
import { secondsFor } from '../workers/workers.ts';
import { contentsOf, type Contents } from './contents.ts';

const megabytes = (bytes: number): number => Math.round(bytes / 1048576);

const cannotBeImported = (why: string) => new Refusal(422, 'parcel.large', noParcel(why));

/** Refuses what could not be imported again. */
function mustBeWhole({ assets, missing }: Contents): void {
  const [gone] = missing;
  if (gone)
    throw new Refusal(
      422,
      'parcel.incomplete',
      `No parcel is made: "${gone.effect}" uses ${gone.what}, which the project does not have any more. Import it again, or take it out of the effect.`,
    );
  if (assets.length > MOST_PARCEL_ASSETS)
    throw cannotBeImported(`it uses ${assets.length} files, and a parcel holds up to ${MOST_PARCEL_ASSETS}`);
  const total = assets.reduce((sum, { bytes }) => sum + bytes, 0);
  if (total > MOST_PARCEL_UNPACKED)
    throw cannotBeImported(
      `its files take ${megabytes(total)} MB, and a parcel holds up to ${megabytes(MOST_PARCEL_UNPACKED)} MB`,
    );
}

/** The effects as a parcel has them: those that others are made of are known by their ids. */
async function effectsFor(session: Session, { effects }: Contents): Promise<NewParcelEffect[]> {
  const linked = new Set(effects.flatMap(({ effect }) => linkedInto(effect)));
  const { rows } = await session.query<{ id: string; picture: Buffer }>(
    'select id, picture from effects where id = any($1) and picture is not null',
    [effects.map(({ id }) => id)],
  );
  const pictures = new Map(rows.map(({ id, picture }) => [id, new Uint8Array(picture)]));
  const files = new Map(effects.map(({ id, name }, n) => [id, effectFile(n + 1, name)]));
  return effects.map(({ id, effect, licence, siblingOf }) => ({
    ...{ effect, licence },
    file: files.get(id)!,
    siblingOf: siblingOf && files.get(siblingOf)!,
    linkedAs: linked.has(id) ? id : null,
    picture: pictures.get(id) ?? null,
  }));
}

/**
 * Makes a parcel of effects of a project with all they use, in a file, and hands it to `send`.
 * @throws Refusal where it could not be imported again, with the reason.
 */
export async function sendParcel(
  { database, incoming, workers }: Pick<House, 'database' | 'incoming' | 'workers'>,
  projectId: string,
  ids: readonly string[],
  send: (file: string, size: number, name: string) => Promise<void>,
): Promise<void> {
  const contents = await contentsOf(database, projectId, ids);
  mustBeWhole(contents);
  await incoming.withFolder(async (folder) => {
    const assets = await assetFiles(database, contents.assets, folder);
    const into = path.join(folder, 'parcel.part');
    const total = assets.reduce((sum, { size }) => sum + size, 0);
    const parcel = { licence: contents.licence, effects: await effectsFor(database, contents), assets, into };
    const size = await workers.run('exportParcel', parcel, secondsFor(total));
    await send(into, size, contents.effects[0]!.name);
  });
}
