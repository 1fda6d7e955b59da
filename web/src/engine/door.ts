import type { Engine } from './engine';

/** Bytes as text, many times quicker to hand to a test than a list of numbers. */
function base64Of(bytes: Uint8Array): string {
  let text = '';
  for (let i = 0; i < bytes.length; i += 8192) text += String.fromCharCode(...bytes.subarray(i, i + 8192));
  return btoa(text);
}

/** Drawn edits that are remembered. */
const MOST_SHOWN = 1000;

/**
 * The inspection door, `window.jinx`: read-only, the same in production. For tests and for the curious.
 * `seek` moves the bench's playhead, as the mouse does.
 */
export function openDoor(engine: Engine, layerIds: () => Record<string, string>): () => void {
  /** Edits as they were drawn, in milliseconds of the page's clock. */
  const shown: { edit: number; at: number }[] = [];
  engine.onShown = (edit, at) => {
    shown.push({ edit, at: at - performance.timeOrigin });
    if (shown.length > MOST_SHOWN) shown.shift();
  };
  const door = {
    state: () => ({ ...engine.state }),
    /** Layer names and their ids. */
    layers: layerIds,
    seek: (step: number) => engine.playback.seek(step),
    hash: async () => {
      const { step, hash } = await engine.simulation.hash();
      return { step, hash };
    },
    /** What lives after all that was asked for before: the simulation has settled by then. */
    particles: async (layer: string) => {
      await engine.simulation.settled();
      const { step, positions, ages, colours } = await engine.simulation.inspect(layer);
      return { step, positions: [...positions], ages: [...ages], colours: [...colours] };
    },
    /** How many edits were made, and when which were drawn. */
    edits: () => ({ made: engine.edits, shown: [...shown] }),
    /** Milliseconds for each of `times` whole drawings of the present picture. */
    timeDrawing: async (times: number) => (await engine.stage.timeDrawing(times)).milliseconds,
    /** The picture of all that was asked for before, RGBA rows from the top in base64: the simulation has settled by then. */
    pixels: async (width: number, height: number) => {
      await engine.simulation.settled();
      return base64Of((await engine.stage.pixels(width, height)).rgba);
    },
  };
  Object.assign(window, { jinx: door });
  return () => {
    engine.onShown = null;
    delete (window as { jinx?: unknown }).jinx;
  };
}
