import { Simulation } from './orders.ts';
import type { ToSimulation } from './protocol.ts';

// The simulation's worker: owns the world and the clock, and publishes a frame for every step.
declare const self: DedicatedWorkerGlobalScope;

const simulation = new Simulation((message, transfer = []) => self.postMessage(message, transfer));
self.onmessage = ({ data }: MessageEvent<ToSimulation>) => simulation.take(data);
