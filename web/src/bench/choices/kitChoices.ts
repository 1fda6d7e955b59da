import { api, type AssetSummary } from '../../api';

/** Endings of the kit's files, by what they hold. */
const ENDING: Record<AssetSummary['kind'], string> = { rig: '.glb', picture: '.png' };
const KIT = 'kit:';

export interface Choice {
  readonly value: string;
  readonly text: string;
  readonly picture: string;
}

/** Files of the kit of a kind that the project has not taken in yet. */
export const kitOffered = (
  kit: readonly string[],
  assets: readonly Pick<AssetSummary, 'kind' | 'name'>[],
  kind: AssetSummary['kind'],
): Choice[] =>
  kit
    .filter((file) => file.endsWith(ENDING[kind]))
    .map((file) => ({ file, name: file.slice(0, -ENDING[kind].length) }))
    .filter(({ name }) => !assets.some((asset) => asset.kind === kind && asset.name.toLowerCase() === name))
    .map(({ file, name }) => ({
      value: KIT + file,
      text: `${name}, from the Fenlight kit`,
      picture: api.kitThumbnailAddress(file),
    }));

/** The file of the kit that was chosen; null where it was something else. */
export const kitFile = (value: string): string | null => (value.startsWith(KIT) ? value.slice(KIT.length) : null);
