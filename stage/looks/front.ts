import * as THREE from 'three';
import {
  FRONT_BORDERS,
  FRONT_FROM,
  FRONT_KIND,
  FRONT_LOWS,
  FRONT_NOISE,
  FRONT_SEED,
  FRONT_SIZE,
  FRONT_TO,
  type Frame,
} from '@jinx/core/simulation';

/**
 * Metres from a place to what a release front has freed, its rags included: below 0 it is free. The same sums as
 * `FrontReader` and `valueNoise` of the core; `rest` is where the place lies on the mesh at rest.
 */
export const FRONT = /* glsl */ `
  uniform vec4 front_numbers;  // furthest border, metres and size of the rags, kind
  uniform float front_low;     // nearest border
  uniform vec3 front_size;
  uniform uint front_seed;
  uniform mat4 front_place;
  uint hash2(uint a, uint b) { return mixed(mixed(a) ^ ((b + 1u) * 0x9e3779b9u)); }
  float frontCorner(int x, int y, int z) {
    return float(hash2(hash2(hash2(front_seed, uint(x)), uint(y)), uint(z))) / 2147483648.0 - 1.0;
  }
  float frontNoise(vec3 p) {
    ivec3 cell = ivec3(floor(p));
    vec3 f = p - vec3(cell);
    vec3 u = f * f * f * (f * (f * 6.0 - 15.0) + 10.0);
    float rows = 0.0;
    for (int n = 0; n < 4; n++) {
      int dy = n & 1, dz = n >> 1;
      float a = frontCorner(cell.x, cell.y + dy, cell.z + dz);
      float b = frontCorner(cell.x + 1, cell.y + dy, cell.z + dz);
      rows += (a + (b - a) * u.x) * (dy == 1 ? u.y : 1.0 - u.y) * (dz == 1 ? u.z : 1.0 - u.z);
    }
    return rows;
  }
  float frontDistance(vec3 place, vec3 rest) {
    vec3 local = (place - front_place[3].xyz) * mat3(front_place);
    float far;
    if (front_numbers.w > 1.5) far = local.y;
    else if (front_numbers.w < 0.5) far = length(local);
    else {
      vec3 over = abs(local) - front_size * 0.5;
      far = max(over.x, max(over.y, over.z));
    }
    if (front_numbers.y != 0.0) far += front_numbers.y * frontNoise(rest / front_numbers.z);
    return max(front_low - far, far - front_numbers.x);
  }
`;

export const frontUniforms = () => ({
  front_numbers: { value: new THREE.Vector4() },
  front_low: { value: 0 },
  front_size: { value: new THREE.Vector3() },
  front_seed: { value: 0 },
  front_place: { value: new THREE.Matrix4() },
});

/** Sets a front's uniforms to what a frame tells of it at a share of its step. */
export function setFront(uniforms: Record<string, THREE.IUniform>, frame: Frame, front: number, share: number): void {
  const { f32, u32 } = frame;
  const at = frame.frontAt(front);
  const mix = (a: number, b: number) => f32[at + a]! + (f32[at + b]! - f32[at + a]!) * share;
  (uniforms['front_numbers']!.value as THREE.Vector4).set(
    mix(FRONT_BORDERS, FRONT_BORDERS + 1),
    f32[at + FRONT_NOISE]!,
    f32[at + FRONT_NOISE + 1]!,
    f32[at + FRONT_KIND]!,
  );
  uniforms['front_low']!.value = mix(FRONT_LOWS, FRONT_LOWS + 1);
  (uniforms['front_size']!.value as THREE.Vector3).fromArray(f32, at + FRONT_SIZE);
  uniforms['front_seed']!.value = u32[at + FRONT_SEED]!;
  const { elements } = uniforms['front_place']!.value as THREE.Matrix4;
  for (let i = 0; i < 16; i++) elements[i] = mix(FRONT_FROM + i, FRONT_TO + i);
}
