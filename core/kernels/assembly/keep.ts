import { FX, PX } from '../layout';

export function keep(base: usize, stride: usize, from: i32, to: i32, until: i32): void {
  const count = min(to, until) - from;
  if (count <= 0) return;
  const start = base + (<usize>from << 2);
  for (let axis = 0; axis < 3; axis++)
    memory.copy(start + <usize>(FX + axis) * stride, start + <usize>(PX + axis) * stride, <usize>count << 2);
}
