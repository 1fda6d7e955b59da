import { encode } from 'fast-png';

const FRAME = 64;
const [COLUMNS, ROWS] = [4, 2];

/** How much of a wing covers a place, 0 to 1: two lobes on a side, narrowed by how far they are folded. */
function cover(x: number, y: number, open: number): number {
  const side = Math.abs(x) / Math.max(0.08, open);
  const ellipse = (cx: number, cy: number, rx: number, ry: number, turn: number) => {
    const [dx, dy] = [side - cx, y - cy];
    const [u, v] = [dx * Math.cos(turn) + dy * Math.sin(turn), -dx * Math.sin(turn) + dy * Math.cos(turn)];
    return 1 - Math.hypot(u / rx, v / ry);
  };
  const wing = Math.max(ellipse(0.42, 0.2, 0.46, 0.27, 0.55), ellipse(0.34, -0.26, 0.34, 0.24, -0.6));
  const body = 1 - Math.hypot(x / 0.06, (y + 0.02) / 0.36);
  return Math.min(1, Math.max(0, wing * 9, body * 5));
}

/** A moth beating its wings: eight frames in a grid of four by two, pale on clear ground. */
export function mothBook(): Uint8Array {
  const [width, height] = [FRAME * COLUMNS, FRAME * ROWS];
  const data = new Uint8Array(width * height * 4);
  for (let frame = 0; frame < COLUMNS * ROWS; frame++) {
    const open = 0.3 + 0.7 * (0.5 + 0.5 * Math.cos((frame / 8) * 2 * Math.PI));
    const [left, top] = [(frame % COLUMNS) * FRAME, Math.floor(frame / COLUMNS) * FRAME];
    for (let py = 0; py < FRAME; py++)
      for (let px = 0; px < FRAME; px++) {
        const [x, y] = [((px + 0.5) / FRAME) * 2 - 1, 1 - ((py + 0.5) / FRAME) * 2];
        const covered = cover(x, y, open);
        const vein = 0.75 + 0.25 * Math.cos(Math.abs(x) * 22 + y * 6);
        const shade = 130 + 110 * vein * Math.min(1, Math.hypot(x, y) + 0.35);
        data.set([shade, shade * 0.93, shade * 0.8, 255 * covered], ((top + py) * width + left + px) * 4);
      }
  }
  return encode({ width, height, data, channels: 4 });
}
