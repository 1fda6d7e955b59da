import * as THREE from 'three';
import type { Surround } from './protocol.ts';

interface Light {
  readonly zenith: string;
  readonly horizon: string;
  readonly ground: string;
  readonly line: string;
  readonly sky: number;
  readonly key: number;
  readonly keyColour: string;
}

const SURROUNDS: Record<Surround, Light> = {
  dusk: {
    zenith: '#0c0d0e',
    horizon: '#2b2f30',
    ground: '#171919',
    line: '#3d4142',
    sky: 2.4,
    key: 2.2,
    keyColour: '#b4c4d4',
  },
  overcast: {
    zenith: '#6d7173',
    horizon: '#8b8e8e',
    ground: '#5d605f',
    line: '#7b7f7f',
    sky: 2.1,
    key: 0.8,
    keyColour: '#ffffff',
  },
  noon: {
    zenith: '#9fb4c4',
    horizon: '#d8dcd9',
    ground: '#a9a796',
    line: '#c4c2b2',
    sky: 2.3,
    key: 2.6,
    keyColour: '#fff4dc',
  },
};

const skyVertex = /* glsl */ `
  varying vec3 direction;
  void main() {
    direction = position;
    gl_Position = projectionMatrix * vec4(mat3(viewMatrix) * position, 1.0);
    gl_Position.z = gl_Position.w * 0.99999;
  }
`;
const skyFragment = /* glsl */ `
  uniform vec3 zenith; uniform vec3 horizon; uniform vec3 ground;
  varying vec3 direction;
  void main() {
    float y = normalize(direction).y;
    vec3 above = mix(horizon, zenith, smoothstep(0.0, 0.5, y));
    gl_FragColor = vec4(y > 0.0 ? above : mix(horizon, ground, smoothstep(0.0, -0.12, y)), 1.0);
  }
`;
const groundVertex = /* glsl */ `
  varying vec3 place;
  void main() {
    place = position;
    gl_Position = projectionMatrix * viewMatrix * vec4(position, 1.0);
  }
`;
const groundFragment = /* glsl */ `
  uniform vec3 ground; uniform vec3 horizon; uniform vec3 line; uniform float grid;
  uniform vec2 feet[MOST_FEET]; uniform int standing;
  varying vec3 place;
  float lines(vec2 p) {
    vec2 width = fwidth(p);
    vec2 near = abs(fract(p - 0.5) - 0.5) / max(width, 1e-5);
    return (1.0 - min(min(near.x, near.y), 1.0)) * smoothstep(0.6, 0.15, max(width.x, width.y));
  }
  void main() {
    float far = length(place.xz);
    vec3 colour = mix(ground, horizon, smoothstep(6.0, 40.0, far));
    colour = mix(colour, line, grid * (0.55 * lines(place.xz) + 0.28 * lines(place.xz * 2.0)) * smoothstep(14.0, 3.0, far));
    for (int i = 0; i < MOST_FEET; i++) {
      if (i >= standing) break;
      vec2 off = place.xz - feet[i];
      colour *= 1.0 - 0.6 * exp(-dot(off, off) * 9.0);
    }
    gl_FragColor = vec4(colour, 1.0);
  }
`;

/** Things under which the ground is darkened. */
const MOST_FEET = 16;

const linear = (hex: string) => new THREE.Color(hex);

/** Sky, ground, grid and light of a surround. */
export class Surroundings {
  readonly group = new THREE.Group();
  readonly #sky: THREE.ShaderMaterial;
  readonly #ground: THREE.ShaderMaterial;
  readonly #hemisphere = new THREE.HemisphereLight();
  readonly #key = new THREE.DirectionalLight();
  readonly #rim = new THREE.DirectionalLight();

  constructor() {
    const colours = () => ({
      zenith: { value: linear('#000000') },
      horizon: { value: linear('#000000') },
      ground: { value: linear('#000000') },
    });
    this.#sky = new THREE.ShaderMaterial({
      vertexShader: skyVertex,
      fragmentShader: skyFragment,
      side: THREE.BackSide,
      depthWrite: false,
      uniforms: colours(),
    });
    const sky = new THREE.Mesh(new THREE.SphereGeometry(1, 24, 16), this.#sky);
    sky.frustumCulled = false;
    sky.renderOrder = -2;
    this.#ground = new THREE.ShaderMaterial({
      vertexShader: groundVertex,
      fragmentShader: groundFragment,
      defines: { MOST_FEET },
      uniforms: {
        ...colours(),
        line: { value: linear('#000000') },
        grid: { value: 1 },
        feet: { value: Array.from({ length: MOST_FEET }, () => new THREE.Vector2()) },
        standing: { value: 0 },
      },
    });
    const ground = new THREE.Mesh(new THREE.CircleGeometry(60, 64).rotateX(-Math.PI / 2), this.#ground);
    ground.renderOrder = -1;
    this.#key.position.set(2, 5, 3);
    this.#rim.position.set(-3, 3, -4);
    this.group.add(sky, ground, this.#hemisphere, this.#key, this.#rim);
    this.set('dusk');
  }

  set(surround: Surround): void {
    const light = SURROUNDS[surround];
    for (const material of [this.#sky, this.#ground])
      for (const name of ['zenith', 'horizon', 'ground'] as const)
        material.uniforms[name]!.value = linear(light[name]);
    this.#ground.uniforms['line']!.value = linear(light.line);
    this.#hemisphere.color = linear(light.horizon).multiplyScalar(surround === 'dusk' ? 9 : 1);
    this.#hemisphere.groundColor = linear(light.ground).multiplyScalar(surround === 'dusk' ? 5 : 1);
    this.#hemisphere.intensity = light.sky;
    this.#key.color = linear(light.keyColour);
    this.#key.intensity = light.key;
    this.#rim.color = linear(light.keyColour);
    this.#rim.intensity = light.key * 0.8;
  }

  showGrid(isShown: boolean): void {
    this.#ground.uniforms['grid']!.value = isShown ? 1 : 0;
  }

  /** Darkens the ground softly where things stand. */
  setFeet(feet: readonly (readonly [number, number])[]): void {
    const places = this.#ground.uniforms['feet']!.value as THREE.Vector2[];
    const standing = Math.min(feet.length, MOST_FEET);
    for (let i = 0; i < standing; i++) places[i]!.set(...feet[i]!);
    this.#ground.uniforms['standing']!.value = standing;
  }
}
