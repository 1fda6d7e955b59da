import { api } from './api';

/** Gives an effect, with all it uses, to the browser's downloads as one parcel. @throws ApiError when it cannot be had. */
export async function handOver(id: string, name: string): Promise<void> {
  const address = URL.createObjectURL(await api.parcel(id));
  const link = document.createElement('a');
  link.href = address;
  link.download = `${name}.parcel.zip`;
  link.click();
  // The browser has its own hold on the bytes once the download has begun.
  setTimeout(() => URL.revokeObjectURL(address), 60_000);
}
