/** Hashes and noises that looks share. Lots are drawn as core draws them: core/maths/hash.ts. */
export const NOISE = /* glsl */ `
  uint mixed(uint h) {
    h ^= h >> 16; h *= 0x7feb352du; h ^= h >> 15; h *= 0x846ca68bu; h ^= h >> 16;
    return h;
  }
  float drawnAt(uint lot, uint slot) { return float(mixed(mixed(lot) ^ ((slot + 1u) * 0x9e3779b9u)) >> 8) / 16777216.0; }
  vec3 hash3(ivec3 cell) {
    uint h = mixed(uint(cell.x) * 0x8da6b343u ^ uint(cell.y) * 0xd8163841u ^ uint(cell.z) * 0xcb1ab31fu);
    return vec3(h & 1023u, (h >> 10) & 1023u, (h >> 20) & 1023u) / 1023.0;
  }
  // Gradient noise: Perlin, 2002, Improving Noise; gradients from a hash. About 0.5, seldom beyond 0..1.
  float noise(vec3 p) {
    ivec3 cell = ivec3(floor(p));
    vec3 f = p - vec3(cell);
    vec3 u = f * f * f * (f * (f * 6.0 - 15.0) + 10.0);
    float corner[8];
    for (int n = 0; n < 8; n++) {
      ivec3 o = ivec3(n & 1, (n >> 1) & 1, n >> 2);
      corner[n] = dot(hash3(cell + o) * 2.0 - 1.0, f - vec3(o));
    }
    vec4 x = mix(vec4(corner[0], corner[2], corner[4], corner[6]), vec4(corner[1], corner[3], corner[5], corner[7]), u.x);
    vec2 y = mix(x.xz, x.yw, u.y);
    return 0.5 + 0.72 * mix(y.x, y.y, u.z);
  }
  // Clouds: four octaves.
  float clouds(vec3 p) {
    float sum = 0.0, share = 0.54;
    for (int n = 0; n < 4; n++) {
      sum += share * (noise(p) - 0.5);
      p = p * 2.03 + 17.3;
      share *= 0.5;
    }
    return 0.5 + sum * 1.25;
  }
  // Cells: Worley, 1996, A Cellular Texture Basis Function. 1 in the middle of a cell, 0 where two meet.
  float cells(vec3 p) {
    ivec3 cell = ivec3(floor(p));
    float nearest = 8.0, next = 8.0;
    for (int n = 0; n < 27; n++) {
      ivec3 at = cell + ivec3(n % 3 - 1, (n / 3) % 3 - 1, n / 9 - 1);
      vec3 way = vec3(at) + hash3(at) - p;
      float far = dot(way, way);
      next = min(next, max(nearest, far));
      nearest = min(nearest, far);
    }
    return clamp((sqrt(next) - sqrt(nearest)) * 1.4, 0.0, 1.0);
  }
`;
