/** Where Jinx answers: an address for each worker, so that tests side by side never meet. */
export const ADDRESSES: readonly string[] = (
  process.env['JINX_TEST_ADDRESSES'] ??
  process.env['JINX_ADDRESS'] ??
  'http://localhost:7411'
).split(' ');

/** The address that a worker looks at. */
export const addressOf = (worker: number): string => ADDRESSES[worker % ADDRESSES.length]!;
