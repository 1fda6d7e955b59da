import * as THREE from 'three';
import { FOG, LIGHT, type CommonUniforms } from './looks/light.ts';
import { FLAT_FIGURE } from './looks/viewTones.ts';

const vertexShader = /* glsl */ `
  #include <common>
  #include <skinning_pars_vertex>
  varying vec3 seen_place, seen_normal;
  varying vec2 seen_at;
  void main() {
    #include <skinbase_vertex>
    #include <beginnormal_vertex>
    #include <skinnormal_vertex>
    #include <begin_vertex>
    #include <skinning_vertex>
    vec4 place = modelMatrix * vec4(transformed, 1.0);
    seen_place = place.xyz;
    seen_normal = mat3(modelMatrix) * objectNormal;
    seen_at = uv;
    gl_Position = projectionMatrix * viewMatrix * place;
  }
`;
const fragmentShader = /* glsl */ `
  uniform sampler2D picture;
  varying vec3 seen_place, seen_normal;
  varying vec2 seen_at;
  ${LIGHT}
  ${FOG}
  void main() {
    vec3 normal = normalize(gl_FrontFacing ? seen_normal : -seen_normal);
    vec3 c = texture2D(picture, seen_at).rgb * lightOn(seen_place, normal, 0.0);
  #ifdef HAS_VIEW
    gl_FragColor = vec4(vec3(${FLAT_FIGURE}), 1.0);
  #else
    gl_FragColor = vec4(mix(c, fog_colour, fogBefore(seen_place)), 1.0);
  #endif
  }
`;

/** What figures and props on the stage are drawn with: their own picture, lit. */
export const figureMaterial = (common: CommonUniforms, picture: THREE.Texture): THREE.ShaderMaterial =>
  new THREE.ShaderMaterial({
    vertexShader,
    fragmentShader,
    uniforms: { ...common, picture: { value: picture } },
  });
