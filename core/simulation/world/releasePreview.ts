import type { Effect } from '../../document/index.ts';
import type { Rig } from '../../geometry/index.ts';
import { hash2, keyOf } from '../../maths/index.ts';
import { EffectClock } from '../time/clock.ts';
import { compileLayer } from '../compile/layer.ts';
import { compilingOf } from '../compile/effect.ts';
import { newReading, setTime } from '../values/reading.ts';
import { Scene } from '../scene/scene.ts';
import { AT, BIRTH_WORDS, SPOT, type BirthAsk } from '../sources/source.ts';
import { dialShares } from '../values/dials.ts';

/** Births that a preview looks at, and instants at which it does. */
const SITES = 300;
const INSTANTS = 60;

/** What a release front will do to a layer, told without simulating it. */
export interface ReleasePreview {
  /** Share of the layer's births that are freed at some time, 0 to 1. */
  readonly freed: number;
  /** Seconds on the time sheet at which the first and the last are freed; NaN when none is. */
  readonly first: number;
  readonly last: number;
  /** How much further the border would have to go to free all, metres. */
  readonly lacking: number;
  /** Places, at the beginning, of those that are never freed: x, y, z each. */
  readonly never: Float32Array;
}

/** What the front of a layer will free, when, and what never; null where nothing is to be told. */
export function releasePreview(
  effect: Effect,
  layerId: string,
  rigs: ReadonlyMap<string, Rig>,
): ReleasePreview | null {
  const layer = effect.layers.byId[layerId];
  const front = layer?.front ? effect.fronts.byId[layer.front] : undefined;
  if (!layer?.front || !front || layer.population.kind !== 'own') return null;
  const scene = new Scene(effect.stage, rigs);
  const clock = new EffectClock(effect.stretches, Infinity);
  scene.clock = clock;
  const compiling = compilingOf(effect, {
    scene,
    clock,
    rigs,
    populationOf: () => null,
    strikes: () => [],
    announced: () => [],
  });
  const reader = compiling.fronts.get(layer.front)!;
  const { source, numbers } = compileLayer(layerId, compiling);
  if (!source.canBear) return null;
  const ask: BirthAsk = {
    key: 0,
    number: 0,
    time: 0,
    share: 0,
    reading: { ...newReading(), dials: dialShares(effect) },
    about: null,
    event: 0,
  };
  const birth = new Float64Array(BIRTH_WORDS);
  const local = new Float64Array(3);
  const rest = new Float64Array(3);
  const lineage = hash2(effect.seed, layer.salt);
  const freedAt = new Float64Array(SITES).fill(NaN);
  const left = new Float64Array(SITES).fill(Infinity);
  const before = new Float64Array(SITES);
  const places = new Float32Array(SITES * 3);
  for (let k = 0; k <= INSTANTS; k++) {
    const time = (clock.length * k) / INSTANTS;
    reader.pose(time, time);
    ask.time = time;
    setTime(ask.reading, clock, time);
    for (let n = 0; n < SITES; n++) {
      if (freedAt[n]! >= 0) continue;
      ask.number = n;
      ask.key = ask.reading.key = keyOf(lineage, n);
      birth.fill(0, SPOT);
      source.bearInto(birth, ask);
      if (k === 0) {
        const below = numbers['source.below'].read(ask.reading);
        // What is never born is never held.
        if (below > 0 && !(birth[AT + 1]! < below)) freedAt[n] = Infinity;
        places.set(birth.subarray(AT, AT + 3), n * 3);
      }
      reader.localInto(local, true, birth[AT]!, birth[AT + 1]!, birth[AT + 2]!);
      if (source.restInto) source.restInto(rest, birth[SPOT]!, birth[SPOT + 1]!, birth[SPOT + 2]!);
      else rest.set(local);
      const far = reader.distance(local, true) + reader.raggednessAt(rest[0]!, rest[1]!, rest[2]!);
      // A band that has gone by between two instants has freed what it passed.
      const isPassed = k > 0 && reader.reaches(before[n]!, far) >= 0;
      const apart = isPassed ? 0 : reader.apart(far, true);
      before[n] = far;
      left[n] = Math.min(left[n]!, apart);
      if (apart <= 0) freedAt[n] = time;
    }
  }
  return summed(freedAt, left, places);
}

function summed(freedAt: Float64Array, left: Float64Array, places: Float32Array): ReleasePreview | null {
  let [born, freed, first, last, lacking] = [0, 0, NaN, NaN, 0];
  const never: number[] = [];
  freedAt.forEach((time, n) => {
    if (time === Infinity) return;
    born++;
    if (time >= 0) {
      freed++;
      first = first <= time ? first : time;
      last = last >= time ? last : time;
    } else {
      lacking = Math.max(lacking, left[n]!);
      never.push(...places.subarray(n * 3, n * 3 + 3));
    }
  });
  return born === 0 ? null : { freed: freed / born, first, last, lacking, never: Float32Array.from(never) };
}
