import type { CameraView, Triple } from '../api.ts';

const [NEAREST, FARTHEST] = [0.3, 60];
const STEEPEST = 1.5;
const A_TURN = Math.PI;
const KEY_TURN = 0.12;

/** The view after it was turned round its target, by angles in radians, and brought nearer or farther by a factor. */
export function turnedView(view: CameraView, across: number, up: number, factor: number): CameraView {
  const { position, target } = view;
  const away = position.map((x, axis) => x - target[axis]!) as [number, number, number];
  const distance = Math.hypot(...away);
  const heading = Math.atan2(away[0], away[2]) - across;
  const rise = Math.asin(Math.min(1, Math.max(-1, away[1] / distance)));
  const next = Math.min(STEEPEST, Math.max(-STEEPEST, rise + up));
  const far = Math.min(FARTHEST, Math.max(NEAREST, distance * factor));
  const to: Triple = [
    target[0] + far * Math.cos(next) * Math.sin(heading),
    target[1] + far * Math.sin(next),
    target[2] + far * Math.cos(next) * Math.cos(heading),
  ];
  return { ...view, position: to };
}

/** Lets a canvas be turned by dragging, the wheel and the arrow keys. Returns what ends it. */
export function orbit(
  canvas: HTMLCanvasElement,
  turn: (across: number, up: number, factor: number) => void,
): () => void {
  const ending = new AbortController();
  const { signal } = ending;
  canvas.addEventListener('pointerdown', ({ pointerId }) => canvas.setPointerCapture(pointerId), { signal });
  canvas.addEventListener(
    'pointermove',
    ({ buttons, movementX, movementY }) => {
      const height = canvas.clientHeight || 1;
      if (buttons & 1) turn((movementX / height) * A_TURN, (movementY / height) * A_TURN, 1);
    },
    { signal },
  );
  canvas.addEventListener(
    'wheel',
    (event) => {
      event.preventDefault();
      turn(0, 0, Math.exp(event.deltaY * 0.001));
    },
    { signal, passive: false },
  );
  const keys: Readonly<Record<string, readonly [number, number, number]>> = {
    ArrowLeft: [KEY_TURN, 0, 1],
    ArrowRight: [-KEY_TURN, 0, 1],
    ArrowUp: [0, KEY_TURN, 1],
    ArrowDown: [0, -KEY_TURN, 1],
    '+': [0, 0, 0.9],
    '-': [0, 0, 1 / 0.9],
  };
  canvas.addEventListener(
    'keydown',
    (event) => {
      const found = keys[event.key];
      if (!found) return;
      event.preventDefault();
      turn(...found);
    },
    { signal },
  );
  return () => ending.abort();
}
