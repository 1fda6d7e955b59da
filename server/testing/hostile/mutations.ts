import { strToU8 } from 'fflate';
import type { Sent } from './lie.ts';
import type { Materials } from './materials.ts';
import type { Random } from './random.ts';

/** What happens to bytes on bad disks and in bad hands. */
const WAYS: readonly ((bytes: Uint8Array, random: Random) => Uint8Array)[] = [
  (bytes, random) => bytes.slice(0, random.below(bytes.length)),
  (bytes, random) => {
    const copy = bytes.slice();
    for (let n = 0; n <= random.below(8); n++) copy[random.below(copy.length)]! ^= 1 << random.below(8);
    return copy;
  },
  (bytes, random) => {
    const copy = bytes.slice();
    const at = random.below(copy.length);
    copy.fill(random.one([0, 255, 65]), at, at + 1 + random.below(200));
    return copy;
  },
  (bytes, random) => {
    const [from, length, to] = [random.below(bytes.length), 1 + random.below(500), random.below(bytes.length)];
    return new Uint8Array([...bytes.subarray(0, to), ...bytes.subarray(from, from + length), ...bytes.subarray(to)]);
  },
  (bytes, random) => {
    const [from, length] = [random.below(bytes.length), 1 + random.below(500)];
    return new Uint8Array([...bytes.subarray(0, from), ...bytes.subarray(from + length)]);
  },
  (bytes, random) => {
    const copy = bytes.slice();
    const view = new DataView(copy.buffer);
    view.setUint32(
      random.below(Math.max(1, copy.length - 4)),
      random.one([0, 0xffffffff, 0x7fffffff, 0x80000000, 1e6]),
      random.below(2) > 0,
    );
    return copy;
  },
];

/** Something untouched, spoilt at random. */
export function mutated(materials: Materials, random: Random): Sent {
  const { parcel, document, preset, png, jpg, glb } = materials;
  const of = random.one<Sent>([
    { to: 'parcels', name: 'x.parcel.zip', bytes: parcel },
    { to: 'effects', name: '', bytes: strToU8(`{"document":${document}}`) },
    { to: 'presets', name: '', bytes: strToU8(preset) },
    { to: 'assets', name: 'x.png', bytes: png },
    { to: 'assets', name: 'x.jpg', bytes: jpg },
    { to: 'assets', name: 'x.glb', bytes: glb },
  ]);
  return { ...of, bytes: random.one(WAYS)(of.bytes, random) };
}
