/** Places passed over between two reports while playing are drawn straight; a longer way was a jump. */
const MOST_PASSED = 8;

/** Writes a count at a place, and straight on from the place before, if the playhead came from there. */
export function fill(line: number[], before: number, bucket: number, count: number): void {
  const way = bucket - before;
  const start = line[before]!;
  if (way > 1 && way <= MOST_PASSED && start >= 0)
    for (let k = 1; k < way; k++) line[before + k] = start + ((count - start) * k) / way;
  line[bucket] = count;
}
