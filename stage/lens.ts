import * as THREE from 'three';

const vertexShader = /* glsl */ `
  varying vec2 at;
  void main() { at = uv; gl_Position = vec4(position.xy, 0.0, 1.0); }
`;
// Tone curve: Narkowicz, 2015, ACES Filmic Tone Mapping Curve. Then sRGB (IEC 61966-2-1), then a grain of dither.
const fragmentShader = /* glsl */ `
  uniform sampler2D picture;
  uniform float exposure;
  varying vec2 at;
  void main() {
    vec3 c = texture2D(picture, at).rgb * exposure;
    c = clamp((c * (2.51 * c + 0.03)) / (c * (2.43 * c + 0.59) + 0.14), 0.0, 1.0);
    c = mix(c * 12.92, 1.055 * pow(c, vec3(1.0 / 2.4)) - 0.055, step(0.0031308, c));
    float grain = fract(sin(dot(gl_FragCoord.xy, vec2(12.9898, 78.233))) * 43758.5453) - 0.5;
    gl_FragColor = vec4(c + grain / 255.0, 1.0);
  }
`;

/** Whether this machine draws without a graphics card: then smoothing edges would cost more than the picture. */
function drawsInSoftware(renderer: THREE.WebGLRenderer): boolean {
  const gl = renderer.getContext();
  const info = gl.getExtension('WEBGL_debug_renderer_info');
  return (
    info !== null && /llvmpipe|swiftshader|softpipe/i.test(String(gl.getParameter(info.UNMASKED_RENDERER_WEBGL)))
  );
}

/** Draws a scene into linear half-float, then to the canvas through the tone curve. */
export class Lens {
  readonly #target: THREE.WebGLRenderTarget;
  readonly #material = new THREE.ShaderMaterial({
    vertexShader,
    fragmentShader,
    depthTest: false,
    depthWrite: false,
    uniforms: { picture: { value: null }, exposure: { value: 1 } },
  });
  readonly #scene = new THREE.Scene();
  readonly #camera = new THREE.OrthographicCamera();

  constructor(renderer: THREE.WebGLRenderer) {
    this.#target = new THREE.WebGLRenderTarget(1, 1, {
      type: THREE.HalfFloatType,
      samples: drawsInSoftware(renderer) ? 0 : 4,
    });
    this.#scene.add(new THREE.Mesh(new THREE.PlaneGeometry(2, 2), this.#material));
  }

  setSize(width: number, height: number): void {
    this.#target.setSize(width, height);
  }

  draw(
    renderer: THREE.WebGLRenderer,
    scene: THREE.Scene,
    camera: THREE.Camera,
    into: THREE.WebGLRenderTarget | null = null,
  ): void {
    renderer.setRenderTarget(this.#target);
    renderer.render(scene, camera);
    renderer.setRenderTarget(into);
    this.#material.uniforms['picture']!.value = this.#target.texture;
    renderer.render(this.#scene, this.#camera);
  }
}
