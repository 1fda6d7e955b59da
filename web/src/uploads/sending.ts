/** How a request that sends a file is watched and given up. */
export interface Watch {
  /** Hears which part of the file is sent, from 0 to 1. */
  readonly progress: (sent: number) => void;
  readonly signal: AbortSignal;
}

/** The sending was given up. */
export class Cancelled extends Error {}

/**
 * Sends a file so that its progress is heard, which `fetch` cannot do.
 * @throws Cancelled where it was given up, TypeError where no answer came.
 */
export function sendFile(
  method: string,
  address: string,
  file: Blob,
  { progress, signal }: Watch,
): Promise<Response> {
  return new Promise((resolve, reject) => {
    if (signal.aborted) return reject(new Cancelled());
    const request = new XMLHttpRequest();
    request.open(method, address);
    request.responseType = 'blob';
    request.upload.onprogress = ({ loaded, total }) => progress(total > 0 ? loaded / total : 1);
    request.onload = () => resolve(new Response(request.response as Blob, { status: request.status }));
    request.onerror = () => reject(new TypeError('no answer came'));
    request.onabort = () => reject(new Cancelled());
    signal.addEventListener('abort', () => request.abort(), { once: true });
    request.send(file);
  });
}
