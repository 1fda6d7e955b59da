import { strToU8, unzipSync, zipSync } from 'fflate';
import { canonicalText, structuredCopy } from '@jinx/core/document';
import { encode } from 'fast-png';
import { hashName } from '@jinx/core/formats';
import { DEEP, type Lie, type Loose, type Sent } from './lie.ts';
import type { Materials } from './materials.ts';
import { PRESET_LIES } from './presetLies.ts';
import type { Random } from './random.ts';

/** Spoils a document, as text or before it is one. */
const DOCUMENT: Readonly<Record<string, (document: Loose, random: Random) => string | void>> = {
  'a number too large': (d, random) => void (d.seed = 2 ** (33 + random.below(900))),
  'a number too small': (d, random) => void (d.stretches.opening = -1 - random.below(1000)),
  'a length out of all bounds': (d) => void (d.stretches.closing = 1e9),
  'a number that is a text': (d) => void (d.seed = 'seven'),
  'a name that is a number': (d) => void (d.name = 7),
  'a name that goes on': (d, random) => void (d.name = 'x'.repeat(200 + random.below(1000))),
  'a field that is unknown': (d, random) => void (d.layers.byId.body[`glow${random.below(99)}`] = 1),
  'a part that is unknown': (d) => void (d.script = 'alert(1)'),
  'a part that is missing': (d, random) =>
    void delete d[random.one(['layers', 'looks', 'stage', 'groups', 'palette'])],
  'a kind that is unknown': (d) => void (d.layers.byId.body.source = { kind: 'volcano' }),
  'a choice that is none': (d) => void (d.layers.byId.body.population = { kind: 'sometimes' }),
  'a colour that is none': (d) => void (d.palette.byId.warm.colour = { kind: 'fixed', hex: 'red' }),
  'an id that is none': (d) => {
    d.layers.order.push('../x');
    d.layers.byId['../x'] = d.layers.byId.body;
  },
  'an order with a stranger': (d) => void d.layers.order.push('ghost'),
  'an order that lacks one': (d) => void d.layers.order.pop(),
  'an order with one twice': (d) => void d.layers.order.push('body'),
  'a colour that is not there': (d) => void (d.layers.byId.body.settings['life.colour'].base.value.palette = 'cold'),
  'a layer that is not there': (d) => void (d.layers.byId.sparks.population.layer = 'ghost'),
  'a group that is not there': (d) => void (d.layers.byId.sparks.parent = 'ghost'),
  'groups in a circle': (d) => void (d.groups.byId.outer.parent = 'inner'),
  'layers in a circle': (d) => void (d.layers.byId.body.population = { kind: 'follows', layer: 'sparks' }),
  'a schema of the future': (d, random) => void (d.schema = 50 + random.below(100)),
  'no schema': (d) => void delete d.schema,
  'a schema that is none': (d) => void (d.schema = 'new'),
  'a list': (d) => JSON.stringify([d]),
  'no JSON': (d) => canonicalText(d).slice(1),
  'two hundred levels': (d) => canonicalText(d).replace('"seed":9', `"seed":${DEEP}`),
  'a text of megabytes': (d) => canonicalText(d).replace('"Untouched"', `"${'y'.repeat(3_000_000)}"`),
  'a name of every object': (d) => canonicalText(d).replace('"seed":9', '"__proto__":{"x":1},"seed":9'),
  'many layers': (d) => {
    for (let n = 0; n < 300; n++) {
      d.layers.order.push(`l${n}`);
      d.layers.byId[`l${n}`] = d.layers.byId.body;
    }
  },
  'an asset that is not there': (d) => void (d.stage.things.byId[d.stage.things.order[0]].asset = 'f'.repeat(64)),
  'an asset that is no hash': (d) => void (d.stage.things.byId[d.stage.things.order[0]].asset = '../../etc'),
};

function spoiltDocument(
  { effect }: Materials,
  random: Random,
  spoil: (document: Loose, random: Random) => string | void,
): string {
  const copy = structuredCopy(effect) as Loose;
  return spoil(copy, random) ?? JSON.stringify(copy);
}

type Files = Record<string, Uint8Array>;
/** A parcel of these files; some lies are only in how they are packed. */
const packed = (files: Files, change: (bytes: Uint8Array) => void = () => undefined): Sent => {
  const bytes = zipSync(files, { level: 6 });
  change(bytes);
  return { to: 'parcels', name: 'x.parcel.zip', bytes };
};
const filesOf = ({ parcel }: Materials): Files => unzipSync(parcel);
const manifestOf = (files: Files): Loose => JSON.parse(new TextDecoder().decode(files['manifest.json']));
const withManifest = (files: Files, change: (manifest: Loose) => void): Files => {
  const manifest = manifestOf(files);
  change(manifest);
  return { ...files, 'manifest.json': strToU8(JSON.stringify(manifest)) };
};

const EFFECT = 'effects/1-untouched.json';
/** The hashes in a manifest made those of the files that are there now: what was changed is not told by them. */
const rehashed = (files: Files): Files =>
  withManifest(files, ({ effects, assets }) => {
    const named = [...effects, ...effects.map((e: Loose) => e.picture), ...assets.map((a: Loose) => a.open)];
    for (const entry of named) if (entry && files[entry.file]) entry.sha256 = hashName(files[entry.file]!);
  });
/** A parcel in which the file for other programs of one kind is another. */
const withOpenFile = (files: Files, ending: string, bytes: Uint8Array): Sent => {
  const file = Object.keys(files).find((name) => name.endsWith(ending))!;
  return packed(rehashed({ ...files, [file]: bytes }));
};

/** An asset changed, with its hash told right wherever it is named. */
function withAsset(materials: Materials, kind: 'rig' | 'picture', change: (bytes: Uint8Array) => Uint8Array): Sent {
  const asset = materials.assets.find((one) => one.kind === kind)!;
  const spoilt = change(asset.bytes.slice());
  const hash = hashName(spoilt);
  const renamed = Object.fromEntries(
    Object.entries(filesOf(materials)).map(([name, bytes]): [string, Uint8Array] => {
      if (name === `assets/${asset.hash}.jxa`) return [`assets/${hash}.jxa`, spoilt];
      return [
        name,
        name.endsWith('.json') ? strToU8(new TextDecoder().decode(bytes).replaceAll(asset.hash, hash)) : bytes,
      ];
    }),
  );
  return packed(rehashed(renamed));
}

const viewOf = (bytes: Uint8Array) => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
/** An asset's header, and where its lists begin. */
function headed(bytes: Uint8Array): { header: Loose; body: Uint8Array } {
  const length = viewOf(bytes).getUint32(4, true);
  return {
    header: JSON.parse(new TextDecoder().decode(bytes.subarray(8, 8 + length))),
    body: bytes.subarray(8 + length),
  };
}
function joined(header: Loose, body: Uint8Array): Uint8Array {
  let text = typeof header === 'string' ? header : JSON.stringify(header);
  while (strToU8(text).length % 4 !== 0) text += ' ';
  const head = strToU8(text);
  const bytes = new Uint8Array(8 + head.length + body.length);
  bytes.set(strToU8('JXA1'));
  viewOf(bytes).setUint32(4, head.length, true);
  bytes.set(head, 8);
  bytes.set(body, 8 + head.length);
  return bytes;
}
const inHeader = (change: (header: Loose) => void) => (bytes: Uint8Array) => {
  const { header, body } = headed(bytes);
  change(header);
  return joined(header, body);
};
/** Writes into the list of a name. */
const inList =
  (name: string, change: (view: DataView, at: number, length: number) => void) => (bytes: Uint8Array) => {
    const { header, body } = headed(bytes);
    const copy = body.slice();
    const SIZES: Record<string, number> = { f32: 4, u32: 4, u16: 2, u8: 1 };
    let at = 0;
    for (const list of header.arrays) {
      const size = list.length * SIZES[list.type]!;
      if (list.name === name) change(viewOf(copy), at, list.length);
      at += Math.ceil(size / 4) * 4;
    }
    return joined(header, copy);
  };

const ASSET: Readonly<Record<string, ['rig' | 'picture', (bytes: Uint8Array) => Uint8Array]>> = {
  'another mark': ['rig', (bytes) => (bytes.set(strToU8('ABCD')), bytes)],
  'a header past the end': ['rig', (bytes) => (viewOf(bytes).setUint32(4, 0x7fffffff, true), bytes)],
  'a header that is no JSON': ['rig', (bytes) => joined('{no', headed(bytes).body)],
  'a header that is deep': ['picture', (bytes) => joined(DEEP, headed(bytes).body)],
  'a header without lists': ['picture', inHeader((h) => void delete h.arrays)],
  'a list of a type that is none': ['picture', inHeader((h) => void (h.arrays[0].type = 'toString'))],
  'a list of a wild length': ['picture', inHeader((h) => void (h.arrays[0].length = 1e15))],
  'less than it says': ['picture', (bytes) => bytes.slice(0, bytes.length - 8)],
  'more than it says': ['picture', (bytes) => new Uint8Array([...bytes, 0, 0, 0, 0])],
  'a picture of a wrong width': ['picture', inHeader((h) => void (h.data.width = 33))],
  'a picture of no width': ['picture', inHeader((h) => void (h.data.width = 0))],
  'a picture that is vast': ['picture', inHeader((h) => void ([h.data.width, h.data.height] = [1e9, 1e9]))],
  'a bone before its parent': ['rig', inHeader((h) => void (h.data.bones[1].parent = 5))],
  'a bone without a name': ['rig', inHeader((h) => void (h.data.bones[0].name = null))],
  'a texture of a wrong size': ['rig', inHeader((h) => void (h.data.texture = { width: 8000, height: 8000 }))],
  'a part past the end': ['rig', inHeader((h) => void (h.data.parts = [{ name: 'x', start: 3e6, count: 3 }]))],
  'a clip of no bone': ['rig', inHeader((h) => void (h.data.clips[0].tracks[0].bone = 250))],
  'a triangle to no vertex': ['rig', inList('indices', (view, at) => view.setUint32(at, 0x00ffffff, true))],
  'a vertex to no bone': ['rig', inList('joints', (view, at) => view.setUint16(at, 60000, true))],
  'a place that is no number': ['rig', inList('positions', (view, at) => view.setFloat32(at, NaN, true))],
  'a weight that is endless': ['rig', inList('weights', (view, at) => view.setFloat32(at, Infinity, true))],
  'a list under another name': [
    'rig',
    inHeader((h) => void (h.arrays.find((a: Loose) => a.name === 'normals').name = 'normalz')),
  ],
  'a kind that it is not': ['picture', inHeader((h) => void (h.kind = 'rig'))],
};

/** Offset of a field in the index's entry of the first file. */
const inIndex = (field: number, write: (view: DataView, at: number) => void) => (bytes: Uint8Array) => {
  const view = viewOf(bytes);
  const first = view.getUint32(bytes.length - 22 + 16, true);
  write(view, first + field);
};

const PACKING: Readonly<Record<string, (files: Files, random: Random) => Sent>> = {
  'a path that climbs': (files, random) =>
    packed({ ...files, [random.one(['../x', 'a/../../x', '..'])]: strToU8('x') }),
  'a path from the root': (files, random) =>
    packed({ ...files, [random.one(['/etc/x', 'C:/x', '\\\\host\\x', 'a\\..\\x'])]: strToU8('x') }),
  'names that collide': (files) => packed({ ...files, 'MANIFEST.json': files['manifest.json']! }),
  'a stranger': (files) => packed({ ...files, 'readme.txt': strToU8('hello') }),
  'no manifest': ({ 'manifest.json': _gone, ...files }) => packed(files),
  'no effect': ({ [EFFECT]: _gone, ...files }) => packed(files),
  'no assets': (files) =>
    packed(Object.fromEntries(Object.entries(files).filter(([name]) => name.endsWith('.json')))),
  'a wrong hash': (files) =>
    packed(
      Object.fromEntries(
        Object.entries(files).map(([name, bytes]): [string, Uint8Array] => [
          name,
          name.endsWith('.jxa') ? bytes.map((b, n) => (n === bytes.length - 1 ? b ^ 1 : b)) : bytes,
        ]),
      ),
    ),
  'hundreds of files': (files) =>
    packed({ ...files, ...Object.fromEntries(Array.from({ length: 300 }, (_, n) => [`f${n}`, new Uint8Array(1)])) }),
  'a bomb of text': (files) => packed({ ...files, [EFFECT]: strToU8(`"${' '.repeat(12_000_000)}"`) }),
  'a text past all length': (files) => packed({ ...files, [EFFECT]: strToU8(' '.repeat(17 * 1024 * 1024)) }),
  'a size that is untrue': (files) =>
    packed(
      files,
      inIndex(24, (view, at) => view.setUint32(at, 0x60000000, true)),
    ),
  'a password': (files) =>
    packed(
      files,
      inIndex(8, (view, at) => view.setUint16(at, view.getUint16(at, true) | 1, true)),
    ),
  'another way of packing': (files) =>
    packed(
      files,
      inIndex(10, (view, at) => view.setUint16(at, 12, true)),
    ),
  'a place past the end': (files) =>
    packed(
      files,
      inIndex(42, (view, at) => view.setUint32(at, 0x7ffffff0, true)),
    ),
  'an index that is none': (files) =>
    packed(files, (bytes) => viewOf(bytes).setUint32(bytes.length - 22 + 16, 7, true)),
  'a parcel of the future': (files) => packed(withManifest(files, (m) => void (m.parcel = 3))),
  'a manifest with more': (files) => packed(withManifest(files, (m) => void (m.script = 'x'))),
  'a manifest of another effect': (files) =>
    packed(withManifest(files, (m) => void (m.effects[0].file = 'effects/2-other.json'))),
  'a manifest that names one twice': (files) => packed(withManifest(files, (m) => m.assets.push(m.assets[0]))),
  'a manifest of the wrong kind': (files) =>
    packed(
      withManifest(files, (m) => m.assets.forEach((a: Loose) => (a.kind = a.kind === 'rig' ? 'picture' : 'rig'))),
    ),
  'a manifest without names': (files) =>
    packed(withManifest(files, (m) => m.assets.forEach((a: Loose) => (a.name = ' ')))),
  'a manifest that is long': (files) =>
    packed(withManifest(files, (m) => m.assets.forEach((a: Loose) => (a.name = 'n'.repeat(300))))),
  'a manifest that is no JSON': (files) => packed({ ...files, 'manifest.json': strToU8('{"parcel":1,') }),
  'a manifest that is deep': (files) => packed({ ...files, 'manifest.json': strToU8(DEEP) }),
  'letters that are none': (files) =>
    packed(rehashed({ ...files, [EFFECT]: new Uint8Array([0x7b, 0xff, 0xfe, 0x7d]) })),
  'an effect edited outside': (files) => packed({ ...files, [EFFECT]: strToU8('{}') }),
  'a sibling of nobody': (files) =>
    packed(withManifest(files, (m) => void (m.effects[0].siblingOf = 'effects/9-nobody.json'))),
  'a sibling of itself': (files) => packed(withManifest(files, (m) => void (m.effects[0].siblingOf = EFFECT))),
  'an endless licence': (files) => packed(withManifest(files, (m) => void (m.licence = 'x'.repeat(5000)))),
  'hundreds of effects': (files) =>
    packed(withManifest(files, (m) => void (m.effects = Array.from({ length: 300 }, () => m.effects[0])))),
  'a texture that shows something else': (files) =>
    withOpenFile(files, '.png', encode({ width: 4, height: 4, channels: 4, data: new Uint8Array(64) })),
  'a texture of a vast size': (files) =>
    withOpenFile(
      files,
      '.png',
      restated(encode({ width: 4, height: 4, channels: 4, data: new Uint8Array(64) }), 100_000, 100_000),
    ),
  'a mesh that is none': (files) => withOpenFile(files, '.glb', strToU8('glTF and no more')),
  'a file for other programs that leads out': (files) =>
    packed(withManifest(files, (m) => void (m.assets[0].open.file = '../../x.glb'))),
  'an asset that is not in it': (files) => packed(withManifest(files, (m) => void m.assets.pop())),
};

const image = (name: string, bytes: Uint8Array): Sent => ({ to: 'assets', name, bytes });
/** A PNG with its stated size changed, and the sum that guards it made right. */
function restated(png: Uint8Array, width: number, height: number): Uint8Array {
  const bytes = png.slice();
  viewOf(bytes).setUint32(16, width);
  viewOf(bytes).setUint32(20, height);
  viewOf(bytes).setUint32(29, crcOf(bytes.subarray(12, 29)));
  return bytes;
}
function crcOf(bytes: Uint8Array): number {
  let crc = -1;
  for (const byte of bytes) {
    crc ^= byte;
    for (let bit = 0; bit < 8; bit++) crc = (crc >>> 1) ^ (crc & 1 ? 0xedb88320 : 0);
  }
  return ~crc >>> 0;
}
const IMAGES: Readonly<Record<string, Lie>> = {
  'a vast size': ({ png }) => image('x.png', restated(png, 100_000, 100_000)),
  'a size that it has no room for': ({ png }, random) =>
    image('x.png', restated(png, 4000 + random.below(4000), 8000)),
  'a size below what it holds': ({ png }) => image('x.png', restated(png, 1, 1)),
  'no width': ({ png }) => image('x.png', restated(png, 0, 32)),
  'a JPEG of a vast size': ({ jpg }) => {
    const bytes = jpg.slice();
    for (let at = 2; at < bytes.length - 9; at++)
      if (bytes[at] === 0xff && bytes[at + 1] === 0xc0) viewOf(bytes).setUint32(at + 5, 0xffffffff);
    return image('x.jpg', bytes);
  },
  'a JPEG that has no room for its size': ({ jpg }) => {
    const bytes = jpg.slice();
    for (let at = 2; at < bytes.length - 9; at++)
      if (bytes[at] === 0xff && bytes[at + 1] === 0xc0) viewOf(bytes).setUint32(at + 5, 0x1f001f00);
    return image('x.jpg', bytes);
  },
  'no picture': () => image('x.png', strToU8('not a picture at all')),
  nothing: () => image('x.png', new Uint8Array(0)),
  'a WebP of a vast size': () => {
    const bytes = new Uint8Array(40);
    bytes.set(strToU8('RIFF'));
    bytes.set(strToU8('WEBPVP8X'), 8);
    bytes.set([255, 255, 255, 255, 255, 255], 24);
    return image('x.webp', bytes);
  },
};

/** A GLB with what it says of itself changed. */
function saying(glb: Uint8Array, change: (said: Loose) => string | void): Sent {
  const length = viewOf(glb).getUint32(12, true);
  const said = JSON.parse(new TextDecoder().decode(glb.subarray(20, 20 + length)));
  let text = change(said) ?? JSON.stringify(said);
  while (strToU8(text).length % 4 !== 0) text += ' ';
  const head = strToU8(text);
  const bytes = new Uint8Array(20 + head.length + glb.length - 20 - length);
  bytes.set(glb.subarray(0, 20));
  viewOf(bytes).setUint32(8, bytes.length, true);
  viewOf(bytes).setUint32(12, head.length, true);
  bytes.set(head, 20);
  bytes.set(glb.subarray(20 + length), 20 + head.length);
  return { to: 'assets', name: 'x.glb', bytes };
}
const GLB: Readonly<Record<string, (said: Loose) => string | void>> = {
  'a list that is endless': (said) => void (said.accessors[0].count = 4e9),
  'a list of no length': (said) => void (said.accessors[0].count = 'many'),
  'a part past the end': (said) => void (said.bufferViews[0].byteLength = 2 ** 40),
  'a file beside it': (said) => void (said.buffers[0].uri = 'http://elsewhere.test/x.bin'),
  'two hundred levels': () => DEEP,
  'a part that it needs and is not read': (said) =>
    void ([said.extensionsRequired, said.extensionsUsed] = [['EXT_other'], ['EXT_other']]),
  'no scene': (said) => void (delete said.scenes, delete said.scene),
  'hundreds of nodes': (said) => {
    const from = said.nodes.length;
    for (let n = 0; n < 400; n++) said.nodes.push({ name: `n${n}` });
    said.scenes[0].nodes.push(...Array.from({ length: 400 }, (_, n) => from + n));
  },
  'no mesh': (said) => said.nodes.forEach((node: Loose) => delete node.mesh),
};

const all: (readonly [string, Lie])[] = [
  ...Object.entries(DOCUMENT).flatMap(([name, spoil]): [string, Lie][] => [
    [
      `a document with ${name}`,
      (materials, random) => ({
        to: 'effects',
        name: '',
        bytes: strToU8(`{"document":${spoiltDocument(materials, random, spoil)}}`),
      }),
    ],
    [
      `a parcel whose effect has ${name}`,
      (materials, random) =>
        packed(rehashed({ ...filesOf(materials), [EFFECT]: strToU8(spoiltDocument(materials, random, spoil)) })),
    ],
  ]),
  ...Object.entries(PACKING).map(([name, spoil]): [string, Lie] => [
    `a parcel with ${name}`,
    (materials, random) => spoil(filesOf(materials), random),
  ]),
  ...Object.entries(ASSET).map(([name, [kind, change]]): [string, Lie] => [
    `a parcel with an asset with ${name}`,
    (materials) => withAsset(materials, kind, change),
  ]),
  ...Object.entries(IMAGES).map(([name, lie]): [string, Lie] => [`a picture with ${name}`, lie]),
  ...Object.entries(GLB).map(([name, change]): [string, Lie] => [
    `a figure with ${name}`,
    ({ glb }) => saying(glb, change),
  ]),
  ...PRESET_LIES,
];

/** Every lie by what it is. */
export const LIES: readonly (readonly [string, Lie])[] = all;
