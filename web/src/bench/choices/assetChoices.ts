import { api, type AssetSummary } from '../../api';
import type { PickItem } from '../pick/pick';
import { kitOffered } from './kitChoices';

type Asset = Pick<AssetSummary, 'hash' | 'name' | 'kind'>;

/** Figures and meshes, or pictures, of a project, each with its thumbnail. */
export const assetChoices = (projectId: string, assets: readonly Asset[], kind: AssetSummary['kind']): PickItem[] =>
  assets
    .filter((asset) => asset.kind === kind)
    .map(({ hash, name }) => ({ value: hash, text: name, picture: api.thumbnailAddress(projectId, hash) }));

/** The same, and what of the kit the project has not taken in yet. */
export const assetsAndKit = (
  projectId: string,
  assets: readonly Asset[],
  kit: readonly string[],
  kind: AssetSummary['kind'],
): PickItem[] => [...assetChoices(projectId, assets, kind), ...kitOffered(kit, assets, kind)];
