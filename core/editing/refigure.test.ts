import { describe, expect, it } from 'vitest';
import { collectionOf, newEffect, newLayer, newThing, parseEffect, structuredCopy } from '../document/index.ts';
import { bonesUsed, figuresOf, linkEffect, refigured } from './index.ts';

const [SEDGE, TALLOW] = ['a'.repeat(64), 'b'.repeat(64)];
function mantle() {
  const effect = newEffect('Mantle', 3);
  effect.stage.things = collectionOf([['sedge', { ...newThing('Sedge', SEDGE), clip: 'walk' }]]);
  const layer = newLayer('Motes', 1);
  layer.source = { kind: 'mesh', thing: 'sedge', bones: ['forearm.L', 'forearm.R'] };
  layer.aim = {
    ...{ kind: 'bone', thing: 'sedge', bone: 'head' },
    ...{ offset: [0, 0, 0], turn: [0, 0, 0], keys: collectionOf([]) },
  };
  effect.layers = collectionOf([['motes', layer]]);
  return effect;
}
const tallow = {
  asset: TALLOW,
  bones: { 'forearm.L': 'arm', 'forearm.R': 'arm', head: 'skull' },
  clips: ['stand'],
};

describe('an effect on another figure', () => {
  it('names the bones of that one wherever it named its own, and plays a clip that it has', () => {
    const made = refigured(mantle(), SEDGE, tallow);
    expect(bonesUsed(made, TALLOW).sort()).toEqual(['arm', 'skull']);
    expect(made.stage.things.byId['sedge']).toMatchObject({ asset: TALLOW, clip: 'stand' });
    expect(parseEffect(structuredCopy(made))).toEqual(made);
    expect(bonesUsed(mantle(), SEDGE).sort()).toEqual(['forearm.L', 'forearm.R', 'head']);
  });

  it('is so in what is linked into it, and another figure is left alone', () => {
    const holder = newEffect('Holder', 4);
    linkEffect(holder, 'g', 'other', mantle());
    expect(figuresOf(holder)).toEqual([SEDGE]);
    const made = refigured(holder, SEDGE, tallow);
    expect(figuresOf(made)).toEqual([TALLOW]);
    expect(bonesUsed(made, TALLOW).sort()).toEqual(['arm', 'skull']);
    expect(refigured(holder, TALLOW, tallow)).toEqual(holder);
  });
});
