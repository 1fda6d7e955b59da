declare module '*.wasm' {
  const bytes: Uint8Array<ArrayBuffer>;
  export default bytes;
}
declare module 'jinx:worker' {
  /** The code of the player's worker (scripts/buildPlayer.mjs). */
  const code: string;
  export default code;
}
