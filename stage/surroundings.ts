import { SURROUND_COLOURS, type Surround } from '@jinx/core/document';
import * as THREE from 'three';
import { FOG, LIGHT, setDefine, type CommonUniforms } from './looks/light.ts';
import { FLAT_WORLD } from './looks/viewTones.ts';
import type { StageFog } from './protocol.ts';

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
  night: {
    ...SURROUND_COLOURS.night,
    line: '#1d2022',
    sky: 1.6,
    key: 0.5,
    keyColour: '#9fb4d8',
  },
  dusk: {
    ...SURROUND_COLOURS.dusk,
    line: '#3d4142',
    sky: 2.4,
    key: 2.2,
    keyColour: '#b4c4d4',
  },
  overcast: {
    ...SURROUND_COLOURS.overcast,
    line: '#7b7f7f',
    sky: 2.1,
    key: 0.8,
    keyColour: '#ffffff',
  },
  noon: {
    ...SURROUND_COLOURS.noon,
    line: '#c4c2b2',
    sky: 2.3,
    key: 2.6,
    keyColour: '#fff4dc',
  },
  /** Patches of dark and bright, and of several hues: what an effect must be read against in the thick of it. */
  busy: {
    ...SURROUND_COLOURS.busy,
    line: '#8f8a76',
    sky: 2,
    key: 1.8,
    keyColour: '#ffe9c9',
  },
  bare: { ...SURROUND_COLOURS.bare, line: '#000000', sky: 0, key: 0, keyColour: '#000000' },
};

const skyVertex = /* glsl */ `
  varying vec3 direction;
  void main() {
    direction = position;
    gl_Position = projectionMatrix * vec4(mat3(viewMatrix) * position, 1.0);
    gl_Position.z = gl_Position.w * 0.99999;
  }
`;
/** Patches that lie about in a busy surround: dark and bright, warm and cold. */
const PATCHES = /* glsl */ `
  float patchHash(vec2 p) { return fract(sin(dot(p, vec2(41.3, 289.1))) * 43758.5453); }
  vec3 patched(vec3 colour, vec2 p) {
  #ifdef IS_BUSY
    for (int n = 0; n < 3; n++) {
      vec2 cell = floor(p), within = fract(p);
      float lot = patchHash(cell + float(n) * 7.3);
      vec2 middle = vec2(patchHash(cell + 3.1), patchHash(cell + 8.7)) * 0.5 + 0.25;
      float inside = smoothstep(0.42, 0.36, length((within - middle) * mat2(0.8, 0.6, -0.6, 0.8) * vec2(1.0, 1.0 + lot)));
      vec3 hue = lot < 0.3 ? vec3(0.16, 0.2, 0.17) : lot < 0.55 ? vec3(2.1, 1.9, 1.5) : lot < 0.8 ? vec3(1.5, 0.75, 0.5) : vec3(0.55, 0.8, 1.15);
      colour = mix(colour, colour * hue, inside);
      p = p * 2.3 + 11.7;
    }
  #endif
    return colour;
  }
`;
const skyFragment = /* glsl */ `
  uniform vec3 zenith; uniform vec3 horizon; uniform vec3 ground;
  varying vec3 direction;
  ${PATCHES}
  ${FOG}
  void main() {
    vec3 way = normalize(direction);
    vec3 above = patched(mix(horizon, zenith, smoothstep(0.0, 0.5, way.y)), vec2(atan(way.z, way.x) * 3.0, way.y * 5.0));
    vec3 colour = way.y > 0.0 ? above : mix(horizon, ground, smoothstep(0.0, -0.12, way.y));
  #ifdef HAS_VIEW
    gl_FragColor = vec4(${FLAT_WORLD}, 1.0);
  #else
    gl_FragColor = vec4(mix(colour, fog_colour, fogBefore(cameraPosition + way * 120.0)), 1.0);
  #endif
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
  ${PATCHES}
  ${LIGHT}
  ${FOG}
  float lines(vec2 p) {
    vec2 width = fwidth(p);
    vec2 near = abs(fract(p - 0.5) - 0.5) / max(width, 1e-5);
    return (1.0 - min(min(near.x, near.y), 1.0)) * smoothstep(0.6, 0.15, max(width.x, width.y));
  }
  void main() {
    float far = length(place.xz);
    vec3 colour = patched(ground, place.xz * 0.7);
    // The ground's colour is what it gives back under its own sky; what it gives back of near lights comes to that.
    vec3 tone = colour / max(1e-4, max(colour.r, max(colour.g, colour.b)));
    colour += tone * nearLight(place, vec3(0.0, 1.0, 0.0), 0.0) * 0.03;
    colour = mix(colour, horizon, smoothstep(6.0, 40.0, far));
    colour = mix(colour, line, grid * (0.55 * lines(place.xz) + 0.28 * lines(place.xz * 2.0)) * smoothstep(14.0, 3.0, far));
    for (int i = 0; i < MOST_FEET; i++) {
      if (i >= standing) break;
      vec2 off = place.xz - feet[i];
      colour *= 1.0 - 0.6 * exp(-dot(off, off) * 9.0);
    }
  #ifdef HAS_VIEW
    float lined = grid * (lines(place.xz) + 0.5 * lines(place.xz * 2.0)) * smoothstep(14.0, 3.0, far);
    gl_FragColor = vec4(${FLAT_WORLD} + 0.02 * lined, 1.0);
  #else
    gl_FragColor = vec4(mix(colour, fog_colour, fogBefore(place)), 1.0);
  #endif
  }
`;

/** Things under which the ground is darkened. */
const MOST_FEET = 16;

const linear = (hex: string) => new THREE.Color(hex);

/** Sky, ground, grid and light of a surround. */
export class Surroundings {
  readonly group = new THREE.Group();
  readonly #common: CommonUniforms;
  readonly #sky: THREE.ShaderMaterial;
  readonly #ground: THREE.ShaderMaterial;
  #fog: StageFog | null = null;
  #surround: Surround = 'dusk';
  #cut = { isOn: false, groundHides: false };

  constructor(common: CommonUniforms) {
    this.#common = common;
    const uniforms = () => ({
      ...common,
      zenith: { value: linear('#000000') },
      horizon: { value: linear('#000000') },
      ground: { value: linear('#000000') },
    });
    this.#sky = new THREE.ShaderMaterial({
      vertexShader: skyVertex,
      fragmentShader: skyFragment,
      side: THREE.BackSide,
      depthWrite: false,
      uniforms: uniforms(),
    });
    const sky = new THREE.Mesh(new THREE.SphereGeometry(1, 24, 16), this.#sky);
    sky.frustumCulled = false;
    sky.renderOrder = -2;
    this.#ground = new THREE.ShaderMaterial({
      vertexShader: groundVertex,
      fragmentShader: groundFragment,
      defines: { MOST_FEET },
      uniforms: {
        ...uniforms(),
        line: { value: linear('#000000') },
        grid: { value: 1 },
        feet: { value: Array.from({ length: MOST_FEET }, () => new THREE.Vector2()) },
        standing: { value: 0 },
      },
    });
    const ground = new THREE.Mesh(new THREE.CircleGeometry(60, 64).rotateX(-Math.PI / 2), this.#ground);
    ground.renderOrder = -1;
    common.key_way.value.set(2, 5, 3).normalize();
    common.rim_way.value.set(-3, 3, -4).normalize();
    this.group.add(sky, ground);
    this.set('dusk');
  }

  set(surround: Surround): void {
    this.#surround = surround;
    this.#show();
    const light = SURROUNDS[surround];
    const isDark = surround === 'dusk' || surround === 'night';
    for (const material of [this.#sky, this.#ground]) {
      for (const name of ['zenith', 'horizon', 'ground'] as const)
        material.uniforms[name]!.value = linear(light[name]);
      setDefine(material, 'IS_BUSY', surround === 'busy');
    }
    this.#ground.uniforms['line']!.value = linear(light.line);
    this.#common.zenith_tone.value = linear(light.zenith);
    this.#common.horizon_tone.value = linear(light.horizon);
    this.#common.ground_tone.value = linear(light.ground);
    const { sky_light, ground_light, key_light, rim_light } = this.#common;
    sky_light.value = linear(light.horizon).multiplyScalar(light.sky * (isDark ? 9 : 1));
    ground_light.value = linear(light.ground).multiplyScalar(light.sky * (isDark ? 5 : 1));
    key_light.value = linear(light.keyColour).multiplyScalar(light.key);
    rim_light.value = linear(light.keyColour).multiplyScalar(light.key * 0.8);
    this.setFog(this.#fog);
  }

  /** Leaves out all but what hides: the ground, if it is to. */
  cutOut(isOn: boolean, groundHides: boolean): void {
    this.#cut = { isOn, groundHides };
    this.#show();
  }
  /** Without a surround there is neither sky nor ground. */
  #show(): void {
    const { isOn, groundHides } = this.#cut;
    const [sky, ground] = this.group.children as [THREE.Object3D, THREE.Object3D];
    const isBare = this.#surround === 'bare';
    sky.visible = !isOn && !isBare;
    ground.visible = isOn ? groundHides : !isBare;
    this.#ground.colorWrite = !isOn;
  }

  setFog(fog: StageFog | null): void {
    this.#fog = fog;
    for (const material of [this.#sky, this.#ground]) setDefine(material, 'HAS_FOG', fog !== null);
    const { fog_colour, fog_density, fog_height } = this.#common;
    fog_density.value = fog ? -Math.log(1 - Math.min(0.99, fog.density)) : 0;
    fog_height.value = fog?.height ?? 1;
    fog_colour.value = fog?.colour ? new THREE.Color(...fog.colour) : linear(SURROUNDS[this.#surround].horizon);
  }

  /** Lets only the effect have tones, and the world none, or all be as it is again. */
  setView(isOn: boolean): void {
    for (const material of [this.#sky, this.#ground]) setDefine(material, 'HAS_VIEW', isOn);
  }

  dispose(): void {
    for (const mesh of this.group.children) (mesh as THREE.Mesh).geometry.dispose();
    this.#sky.dispose();
    this.#ground.dispose();
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
