import type { Surround } from './schema/index.ts';

/** The sky overhead and at the horizon, and the ground, of each surround. */
export const SURROUND_COLOURS: Record<
  Surround,
  { readonly zenith: string; readonly horizon: string; readonly ground: string }
> = {
  night: { zenith: '#040405', horizon: '#0c0d0f', ground: '#090a0a' },
  dusk: { zenith: '#0c0d0e', horizon: '#2b2f30', ground: '#171919' },
  overcast: { zenith: '#6d7173', horizon: '#8b8e8e', ground: '#5d605f' },
  noon: { zenith: '#9fb4c4', horizon: '#d8dcd9', ground: '#a9a796' },
  busy: { zenith: '#4e6172', horizon: '#a79f8d', ground: '#6d6a58' },
  bare: { zenith: '#000000', horizon: '#000000', ground: '#000000' },
};
