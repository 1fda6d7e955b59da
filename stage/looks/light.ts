import { MOST_LIGHTS, MOST_OWN_LIGHTS } from '@jinx/core/document';
import * as THREE from 'three';

/** Lights that shaders have room for: those that effects give, and those of the artist's own. */
export const LIGHT_SLOTS = MOST_LIGHTS + MOST_OWN_LIGHTS;

/** What all shaders of a stage share: one object a uniform, so that setting it once sets it everywhere. */
export interface CommonUniforms {
  /** How far the step has come, 0 to 1; seconds of the effect; steps a second. */
  readonly share: THREE.IUniform<number>;
  readonly rate: THREE.IUniform<number>;
  /** Metres in front of the eye of what is solid, for every pixel. */
  readonly depths: THREE.IUniform<THREE.Texture | null>;
  readonly sky_light: THREE.IUniform<THREE.Color>;
  readonly ground_light: THREE.IUniform<THREE.Color>;
  readonly key_light: THREE.IUniform<THREE.Color>;
  readonly key_way: THREE.IUniform<THREE.Vector3>;
  readonly rim_light: THREE.IUniform<THREE.Color>;
  readonly rim_way: THREE.IUniform<THREE.Vector3>;
  /** What is reflected: straight up, level, straight down. */
  readonly zenith_tone: THREE.IUniform<THREE.Color>;
  readonly horizon_tone: THREE.IUniform<THREE.Color>;
  readonly ground_tone: THREE.IUniform<THREE.Color>;
  /** A picture of all directions that is mirrored instead; its brightness, radians it is turned, and how often it can be halved. */
  readonly mirrored_picture: THREE.IUniform<THREE.Texture | null>;
  readonly mirrored_numbers: THREE.IUniform<THREE.Vector3>;
  readonly lights: THREE.IUniform<number>;
  /** Place and reach; linear colour times strength on surfaces. */
  readonly light_places: THREE.IUniform<THREE.Vector4[]>;
  readonly light_colours: THREE.IUniform<THREE.Vector3[]>;
  /** Linear colour times strength in fog. */
  readonly light_fogs: THREE.IUniform<THREE.Vector3[]>;
  readonly fog_colour: THREE.IUniform<THREE.Color>;
  /** Share lost a metre at the ground, as a rate; metres in which it thins out to a third. No fog at 0. */
  readonly fog_density: THREE.IUniform<number>;
  readonly fog_height: THREE.IUniform<number>;
  /** Which view replaces the picture: VIEW_KINDS. */
  readonly view_kind: THREE.IUniform<number>;
  /** Seconds from one picture to the next, of those that are handed out. */
  readonly moving_seconds: THREE.IUniform<number>;
  /** The age that is lit in the layers that say so. */
  readonly lit_age: THREE.IUniform<number>;
  /** How much of what is added to the picture, rather than covering it, is drawn: 1, or 0 to see what is left. */
  readonly added: THREE.IUniform<number>;
}

export const newCommonUniforms = (): CommonUniforms => ({
  share: { value: 1 },
  rate: { value: 60 },
  depths: { value: null },
  sky_light: { value: new THREE.Color() },
  ground_light: { value: new THREE.Color() },
  key_light: { value: new THREE.Color() },
  key_way: { value: new THREE.Vector3(0, 1, 0) },
  rim_light: { value: new THREE.Color() },
  rim_way: { value: new THREE.Vector3(0, 1, 0) },
  zenith_tone: { value: new THREE.Color() },
  horizon_tone: { value: new THREE.Color() },
  ground_tone: { value: new THREE.Color() },
  mirrored_picture: { value: null },
  mirrored_numbers: { value: new THREE.Vector3(1, 0, 1) },
  lights: { value: 0 },
  light_places: { value: Array.from({ length: LIGHT_SLOTS }, () => new THREE.Vector4()) },
  light_colours: { value: Array.from({ length: LIGHT_SLOTS }, () => new THREE.Vector3()) },
  light_fogs: { value: Array.from({ length: LIGHT_SLOTS }, () => new THREE.Vector3()) },
  fog_colour: { value: new THREE.Color() },
  fog_density: { value: 0 },
  fog_height: { value: 3 },
  view_kind: { value: 0 },
  lit_age: { value: 0 },
  moving_seconds: { value: 0 },
  added: { value: 1 },
});

/** Light that falls on a surface, as a share of what it gives back: sky and ground, two far lights, and near ones. */
export const LIGHT = /* glsl */ `
  uniform vec3 sky_light, ground_light, key_light, key_way, rim_light, rim_way;
  uniform int lights;
  uniform vec4 light_places[${LIGHT_SLOTS}];
  uniform vec3 light_colours[${LIGHT_SLOTS}];
  // By the square of the distance, within a window that ends smoothly at the reach.
  float reaching(float far, float reach) {
    float x = far / reach;
    float window = clamp(1.0 - x * x * x * x, 0.0, 1.0);
    return window * window / (far * far + 0.02);
  }
  vec3 lightFrom(int n, vec3 place, vec3 normal, float wrap) {
    vec3 way = light_places[n].xyz - place;
    float far = length(way);
    float facing = clamp((dot(normal, way / max(far, 1e-4)) + wrap) / (1.0 + wrap), 0.0, 1.0);
    return light_colours[n] * facing * reaching(far, light_places[n].w);
  }
  vec3 nearLight(vec3 place, vec3 normal, float wrap) {
    vec3 sum = vec3(0.0);
    for (int n = 0; n < ${LIGHT_SLOTS}; n++) {
      if (n >= lights) break;
      sum += lightFrom(n, place, normal, wrap);
    }
    return sum;
  }
  vec3 lightOn(vec3 place, vec3 normal, float wrap) {
    vec3 far = mix(ground_light, sky_light, normal.y * 0.5 + 0.5);
    far += key_light * clamp((dot(normal, key_way) + wrap) / (1.0 + wrap), 0.0, 1.0);
    far += rim_light * clamp((dot(normal, rim_way) + wrap) / (1.0 + wrap), 0.0, 1.0);
    return (far + nearLight(place, normal, wrap)) * 0.31830989;
  }
`;

/** What a lit mesh gives back of the light: dull and shining, and its surroundings mirrored. */
export const SURFACE_LIGHT = /* glsl */ `
  uniform vec3 zenith_tone, horizon_tone, ground_tone;
  #ifdef HAS_MIRRORED
  uniform sampler2D mirrored_picture;
  uniform vec3 mirrored_numbers;
  // The middle of the picture lies toward −Z, its right half toward +X; the duller, the more is blurred together.
  vec3 surroundings(vec3 way, float roughness) {
    vec2 at = vec2(0.5 + (atan(way.x, -way.z) + mirrored_numbers.y) / 6.2831853, acos(clamp(way.y, -1.0, 1.0)) / 3.1415927);
    return textureLod(mirrored_picture, at, sqrt(roughness) * mirrored_numbers.z).rgb * mirrored_numbers.x;
  }
  #else
  vec3 surroundings(vec3 way, float roughness) {
    float soft = 0.08 + roughness;
    vec3 above = mix(horizon_tone, zenith_tone, smoothstep(0.0, 0.6, way.y));
    return mix(ground_tone, above, smoothstep(-soft, soft, way.y));
  }
  #endif
  // Normalised Blinn-Phong, as wide as the roughness says.
  float shine(vec3 way, vec3 eye, vec3 normal, float roughness) {
    float a = max(0.02, roughness * roughness);
    float power = 2.0 / (a * a) - 2.0;
    float facing = max(0.0, dot(normal, way));
    return facing * pow(max(0.0, dot(normal, normalize(way + eye))), power) * (power + 8.0) * 0.125;
  }
  vec3 surfaceLight(vec3 c, vec3 place, vec3 normal, float roughness, float metalness) {
    vec3 eye = normalize(cameraPosition - place);
    vec3 mirrored = mix(vec3(0.04), c, metalness);
    mirrored += (1.0 - mirrored) * pow(1.0 - max(0.0, dot(normal, eye)), 5.0) * (1.0 - roughness);
    vec3 shining = key_light * shine(key_way, eye, normal, roughness) + rim_light * shine(rim_way, eye, normal, roughness);
    for (int n = 0; n < ${LIGHT_SLOTS}; n++) {
      if (n >= lights) break;
      vec3 way = light_places[n].xyz - place;
      float far = length(way);
      shining += light_colours[n] * reaching(far, light_places[n].w) * shine(way / max(far, 1e-4), eye, normal, roughness);
    }
    vec3 dull = c * (1.0 - metalness) * lightOn(place, normal, 0.0);
    return dull + mirrored * (shining * 0.31830989 + surroundings(reflect(-eye, normal), roughness));
  }
`;

/**
 * How much of what is at a place is lost in the fog before it reaches the eye. Only shaders with HAS_FOG reckon it: a branch
 * that is not taken costs all the same where a machine draws without a graphics card.
 */
export const FOG = /* glsl */ `
  uniform vec3 fog_colour;
  uniform float fog_density, fog_height;
  float fogBefore(vec3 place) {
  #ifndef HAS_FOG
    return 0.0;
  #else
    vec3 way = place - cameraPosition;
    float rise = way.y / fog_height;
    float thinning = abs(rise) < 1e-3 ? 1.0 - 0.5 * rise : (1.0 - exp(-rise)) / rise;
    return 1.0 - exp(-fog_density * length(way) * exp(-max(0.0, cameraPosition.y) / fog_height) * thinning);
  #endif
  }
`;

/** Lets a material reckon with fog, or with anything else that is switched by a define, or no more. */
export function setDefine(material: THREE.ShaderMaterial, name: string, isOn: boolean): void {
  if (name in material.defines === isOn) return;
  if (isOn) material.defines[name] = '';
  else delete material.defines[name];
  material.needsUpdate = true;
}
