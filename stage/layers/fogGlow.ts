import * as THREE from 'three';
import { LIGHT_SLOTS, type CommonUniforms } from '../looks/light.ts';

const vertexShader = /* glsl */ `
  uniform vec4 light_places[${LIGHT_SLOTS}];
  flat varying int light;
  varying vec3 seen_place;
  void main() {
    light = gl_InstanceID;
    vec3 eye_side = vec3(viewMatrix[0][0], viewMatrix[1][0], viewMatrix[2][0]);
    vec3 eye_up = vec3(viewMatrix[0][1], viewMatrix[1][1], viewMatrix[2][1]);
    vec4 at = light_places[light];
    seen_place = at.xyz + (eye_side * position.x + eye_up * position.y) * at.w;
    gl_Position = projectionMatrix * viewMatrix * vec4(seen_place, 1.0);
  }
`;
// Light scattered toward the eye along the line of sight, up to what is solid: a closed form for even fog (Sun et al.,
// 2005, A Practical Analytic Single Scattering Model, without its loss on the way), within the light's reach.
const fragmentShader = /* glsl */ `
  uniform vec4 light_places[${LIGHT_SLOTS}];
  uniform vec3 light_fogs[${LIGHT_SLOTS}];
  uniform float fog_density, fog_height, added;
  uniform sampler2D depths;
  flat varying int light;
  varying vec3 seen_place;
  void main() {
    vec4 at = light_places[light];
    vec3 way = normalize(seen_place - cameraPosition);
    vec3 ahead = -vec3(viewMatrix[0][2], viewMatrix[1][2], viewMatrix[2][2]);
    float last = texelFetch(depths, ivec2(gl_FragCoord.xy), 0).r / max(dot(way, ahead), 1e-3);
    float nearest = dot(at.xyz - cameraPosition, way);
    float aside = max(0.03, length(cameraPosition + way * nearest - at.xyz));
    float lit = (atan((last - nearest) / aside) - atan(-nearest / aside)) / aside;
    float x = aside / at.w;
    float window = clamp(1.0 - x * x, 0.0, 1.0);
    float thick = fog_density * exp(-max(0.0, at.y) / fog_height);
    gl_FragColor = vec4(light_fogs[light] * lit * window * window * thick * 0.08 * added, 0.0);
  }
`;

/** The fog about the lights of the pool, lit by them: a picture for each light, added. */
export class FogGlow {
  readonly mesh: THREE.Mesh<THREE.InstancedBufferGeometry, THREE.ShaderMaterial>;
  readonly #common: CommonUniforms;

  constructor(common: CommonUniforms) {
    this.#common = common;
    const quad = new THREE.PlaneGeometry(2, 2);
    const geometry = new THREE.InstancedBufferGeometry();
    geometry.setAttribute('position', quad.getAttribute('position'));
    geometry.setIndex(quad.getIndex());
    const material = new THREE.ShaderMaterial({
      vertexShader,
      fragmentShader,
      uniforms: { ...common },
      transparent: true,
      depthTest: false,
      depthWrite: false,
      side: THREE.DoubleSide,
      blending: THREE.CustomBlending,
      blendSrc: THREE.OneFactor,
      blendDst: THREE.OneFactor,
    });
    this.mesh = new THREE.Mesh(geometry, material);
    this.mesh.frustumCulled = false;
    this.mesh.renderOrder = -5;
    this.mesh.visible = false;
  }

  /** Whether there is fog for lights to be seen in; then it asks how far away what is solid is. */
  get isSeen(): boolean {
    return this.mesh.visible;
  }

  dispose(): void {
    this.mesh.geometry.dispose();
    this.mesh.material.dispose();
  }

  follow(isHidden: boolean): void {
    const { lights, fog_density } = this.#common;
    this.mesh.visible = !isHidden && fog_density.value > 0 && lights.value > 0;
    this.mesh.geometry.instanceCount = lights.value;
  }
}
