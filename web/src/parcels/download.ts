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
export type HandedOver = 'parcel' | 'page';

/** Gives effects, with all they use, to the browser's downloads as one file. @throws ApiError when it cannot be had. */
export async function downloadEffects(
  projectId: string,
  effects: readonly string[],
  name: string,
  as: HandedOver,
): Promise<void> {
  download(await api.handedOver(projectId, effects, as), as === 'parcel' ? `${name}.parcel.zip` : `${name}.html`);
}
