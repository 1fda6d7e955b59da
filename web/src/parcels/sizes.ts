const KILOBYTE = 1024;

/** Bytes in words, as "3.4 MB". */
export function sizeWords(bytes: number): string {
  if (bytes < KILOBYTE) return `${bytes} bytes`;
  const [size, unit] = bytes < KILOBYTE ** 2 ? [bytes / KILOBYTE, 'kB'] : [bytes / KILOBYTE ** 2, 'MB'];
  return `${size < 10 ? size.toFixed(1) : Math.round(size)} ${unit}`;
}
