// The words of the call at hand, as the interpreter (run.ts) has set them.

let words: usize = 0;
let scratch: usize = 0;
let first: i32 = 0;

/** Begins with a block whose first particle is `particle`, over a thread's own scratch memory. */
// @ts-ignore: decorator
@inline export function startBlock(particle: i32, ownScratch: usize): void {
  first = particle;
  scratch = ownScratch;
}
/** The call at hand begins at an address. */
// @ts-ignore: decorator
@inline export function setCall(address: usize): void { words = address; }

// @ts-ignore: decorator
@inline export function int(n: i32): i32 { return load<i32>(words + (<usize>n << 2)); }
// @ts-ignore: decorator
@inline export function num(n: i32): f32 { return load<f32>(words + (<usize>n << 2)); }
/** An address, or, below zero, a piece of this thread's scratch memory laid so that particle `first` is its first. */
// @ts-ignore: decorator
@inline export function place(n: i32): usize {
  const at = int(n);
  return at >= 0 ? <usize>at : scratch + (<usize>(-1 - at) << 11) - (<usize>first << 2);
}
