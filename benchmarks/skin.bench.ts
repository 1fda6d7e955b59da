// 50,000 particles that stand on a bending skin of 20,000 triangles and ride it: a whole step of their layer, beside plain
// skinning of the three vertices under each of them (linear blend skinning in ordinary double-precision TypeScript).
import { atThing, collectionOf, newThing, setNumber, type Effect } from '../core/document/index.ts';
import type { Rig } from '../core/geometry/index.ts';
import { effectOf } from '../core/testing/effects.ts';
import { kernelBytes } from '../core/testing/kernelBytes.ts';
import { bendingTube } from '../core/testing/rigs.ts';
import { playAlone } from '../core/simulation/index.ts';
import { median, rounded } from './figures.ts';

const RIDERS = 50_000;
const TUBE = 'a'.repeat(64);
const ROUNDS = 60;
/** Rings and vertices round of a tube of 20,000 triangles. */
const RINGS = 100;
const AROUND = 100;

function riders(): Effect {
  return effectOf((layer, effect) => {
    effect.stage.things = collectionOf([['figure', { ...newThing('Figure', TUBE), clip: 'sway' }]]);
    layer.source = { kind: 'mesh', thing: 'figure', bones: [] };
    layer.aim = atThing('figure');
    setNumber(layer, 'births.rate', 0);
    setNumber(layer, 'births.standing', RIDERS);
    setNumber(layer, 'births.cap', RIDERS);
    setNumber(layer, 'motion.speed', 0);
    setNumber(layer, 'motion.ride', 100);
  });
}

/** Skins three vertices for each of a list of triangles, as any tool would: four bones a vertex, no tricks. */
function plainSkinning({ mesh }: Rig, matrices: Float64Array, triangles: Uint32Array, out: Float64Array): void {
  const { positions, joints, weights, indices } = mesh;
  for (let rider = 0; rider < triangles.length; rider++)
    for (let corner = 0; corner < 3; corner++) {
      const vertex = indices[triangles[rider]! * 3 + corner]!;
      const x = positions[vertex * 3]!;
      const y = positions[vertex * 3 + 1]!;
      const z = positions[vertex * 3 + 2]!;
      let px = 0;
      let py = 0;
      let pz = 0;
      for (let k = 0; k < 4; k++) {
        const weight = weights[vertex * 4 + k]!;
        const m = joints[vertex * 4 + k]! * 16;
        px += weight * (matrices[m]! * x + matrices[m + 4]! * y + matrices[m + 8]! * z + matrices[m + 12]!);
        py += weight * (matrices[m + 1]! * x + matrices[m + 5]! * y + matrices[m + 9]! * z + matrices[m + 13]!);
        pz += weight * (matrices[m + 2]! * x + matrices[m + 6]! * y + matrices[m + 10]! * z + matrices[m + 14]!);
      }
      const o = (rider * 3 + corner) * 3;
      out[o] = px;
      out[o + 1] = py;
      out[o + 2] = pz;
    }
}

const rig = bendingTube(RINGS, AROUND);
const triangles = rig.mesh.indices.length / 3;
const world = playAlone(riders(), new Map([[TUBE, rig]]), {}, { kernels: kernelBytes(), historyBytes: 0 });
world.advance(30);
const population = world.population('motes')!;
const under = Uint32Array.from(population.spot.subarray(0, population.count));
const out = new Float64Array(RIDERS * 9);
const whole: number[] = [];
const plain: number[] = [];
for (let round = 0; round < ROUNDS; round++) {
  const started = performance.now();
  world.advance(world.step + 1);
  const between = performance.now();
  plainSkinning(rig, Float64Array.from(world.skinOf('figure')!), under, out);
  whole.push(between - started);
  plain.push(performance.now() - between);
}
const result = {
  benchmark: 'skin',
  riders: population.living,
  triangles,
  stepMilliseconds: rounded(median(whole)),
  plainMilliseconds: rounded(median(plain)),
  ratio: rounded(median(whole) / median(plain)),
};
console.log(
  `${result.riders} riders on ${triangles} triangles: ${result.stepMilliseconds} ms a step, plain skinning ${result.plainMilliseconds} ms`,
);
console.log(JSON.stringify(result));
