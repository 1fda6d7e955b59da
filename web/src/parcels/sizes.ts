const KILOBYTE = 1024;

/** Bytes in words, as "3.4 MB". */
export function sizeWords(bytes: number): string {
  if (bytes < KILOBYTE) return `${bytes} bytes`;
  const power = bytes < KILOBYTE ** 2 ? 1 : bytes < KILOBYTE ** 3 ? 2 : 3;
  const [size, unit] = [bytes / KILOBYTE ** power, ['kB', 'MB', 'GB'][power - 1]];
  return `${size < 10 ? size.toFixed(1) : Math.round(size)} ${unit}`;
}
