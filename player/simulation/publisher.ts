import { FrameWriter, Fullest, HEADER_EDIT, tripleBuffer, type Instance } from '@jinx/core/simulation';
import type { FromSimulation, SimulationState } from './protocol.ts';
import type { Worlds } from './worlds.ts';

const REPORT_EVERY_MILLISECONDS = 60;

export type Tell = (message: FromSimulation, transfer?: Transferable[]) => void;
/** How the playing stands, beside what the world itself says. */
export type Standing = Pick<SimulationState, 'step' | 'stepMilliseconds' | 'isPlaying' | 'progress' | 'settled'>;

/** Writes frames for the stage, and reports to the page. */
export class Publisher {
  readonly #worlds: Worlds;
  readonly #tell: Tell;
  readonly #standing: (world: Instance) => Standing;
  readonly fullest = new Fullest();
  #writer: FrameWriter | null = null;
  #reportedAt = -Infinity;
  /** The number of the edit that is being shown. */
  edit = 0;
  /** The layer that is being dragged, while the others stand at their fullest. */
  dragged: string | null = null;

  constructor(worlds: Worlds, tell: Tell, standing: (world: Instance) => Standing) {
    [this.#worlds, this.#tell, this.#standing] = [worlds, tell, standing];
  }

  /** Begins the buffer of frames anew, and tells the stage where it lies. */
  begin({ frames, memory: { buffer } }: Instance): void {
    const { address, bytes } = frames!;
    this.#writer = new FrameWriter(tripleBuffer(buffer, bytes, address));
    this.#tell({ kind: 'frames', buffer, address, bytes });
  }

  /** Publishes the present frame. */
  publish(): void {
    const { world } = this.#worlds;
    if (!world || !this.#writer) return;
    const { frame } = this.#writer;
    world.writeFrame(frame);
    frame.u32[HEADER_EDIT] = this.edit;
    const standOf = (salt: number) => world.standOf(salt);
    this.fullest.note(frame, standOf);
    if (this.dragged !== null) this.fullest.put(frame, this.#worlds.saltsOf(this.dragged), standOf);
    this.#writer.publish();
    this.report();
  }

  /** Tells how everything stands: at most every so often, unless something has ended. */
  report(isForced = false): void {
    const { world, letGoStep } = this.#worlds;
    const now = performance.now();
    if (!world || (!isForced && now - this.#reportedAt < REPORT_EVERY_MILLISECONDS)) return;
    this.#reportedAt = now;
    const layers = world.counts().map(({ salt, living, born, refused, lost, microseconds }) => ({
      salt,
      living,
      born,
      refused,
      lost,
      milliseconds: microseconds / 1000,
    }));
    const standing = this.#standing(world);
    const state: SimulationState = {
      ...standing,
      sheetTime: world.clock.sheetTime(world.clock.timeOf(standing.step)),
      living: world.living,
      layers,
      isExact: world.isExact,
      isLetGo: letGoStep !== undefined,
      letGoStep: letGoStep ?? null,
    };
    this.#tell({ kind: 'state', state });
  }

  /** Tells what came from outside, as it is now. */
  tellOutside(): void {
    const { strikes, signals } = this.#worlds.world!;
    this.#tell({ kind: 'outside', outside: { strikes, signals } });
  }
}
