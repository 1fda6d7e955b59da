import { api } from '../api';

/** Gives bytes to the browser's downloads. */
export function download(bytes: Blob, name: string): void {
  const address = URL.createObjectURL(bytes);
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
  // The browser has its own hold on the bytes once the download has begun.
  setTimeout(() => URL.revokeObjectURL(address), 60_000);
}

/** What effects are handed over as. */
export type HandedOver = 'parcel' | 'page' | 'attachments';

export interface NamedEffect {
  readonly id: string;
  readonly name: string;
}

/** Gives effects to the browser's downloads: with all they use in one file, or each in one of its own. @throws ApiError */
export async function downloadEffects(
  projectId: string,
  effects: readonly NamedEffect[],
  as: HandedOver,
): Promise<void> {
  if (as === 'attachments') {
    for (const { id, name } of effects) {
      const text = JSON.stringify(await api.attachments(id), null, 1);
      download(new Blob([text], { type: 'application/json' }), `${name}.json`);
    }
    return;
  }
  const bytes = await api.handedOver(
    projectId,
    effects.map(({ id }) => id),
    as,
  );
  download(bytes, `${effects[0]!.name}${as === 'parcel' ? '.parcel.zip' : '.html'}`);
}
