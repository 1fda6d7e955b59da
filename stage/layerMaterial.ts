import * as THREE from 'three';
import type { DrawnLayer } from './protocol.ts';

/**
 * The material of a layer's particles or ribbons. What it gives is premultiplied: additive light covers nothing (alpha 0),
 * normal blending covers by its opacity. Every one has the uniforms `share` (how far the step has come) and `covers`.
 */
export const layerMaterial = (
  vertexShader: string,
  fragmentShader: string,
  uniforms: Record<string, THREE.IUniform> = {},
): THREE.ShaderMaterial =>
  new THREE.ShaderMaterial({
    vertexShader,
    fragmentShader,
    transparent: true,
    side: THREE.DoubleSide,
    depthWrite: false,
    blending: THREE.CustomBlending,
    blendSrc: THREE.OneFactor,
    blendDst: THREE.OneMinusSrcAlphaFactor,
    uniforms: { share: { value: 1 }, covers: { value: 0 }, ...uniforms },
  });

/** Dresses a layer's mesh: its blending, whether it is seen, and its place among the others. */
export function dressLayer(
  mesh: THREE.Mesh<THREE.BufferGeometry, THREE.ShaderMaterial>,
  layer: DrawnLayer,
  order: number,
): void {
  mesh.material.uniforms['covers']!.value = layer.blend === 'normal' ? 1 : 0;
  mesh.renderOrder = order;
  mesh.visible = layer.isVisible;
}
