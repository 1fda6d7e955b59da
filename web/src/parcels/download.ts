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

/** Gives effects, with all they use, to the browser's downloads as one parcel. @throws ApiError when it cannot be had. */
export async function downloadParcel(projectId: string, effects: readonly string[], name: string): Promise<void> {
  download(await api.parcel(projectId, effects), `${name}.parcel.zip`);
}
