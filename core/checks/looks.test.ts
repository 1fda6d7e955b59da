import { describe, expect, it } from 'vitest';
import {
  collectionOf,
  curveShaper,
  inWorld,
  newDrawn,
  newForce,
  newStep,
  newSurface,
  newThing,
  setStep,
  structuredCopy,
  type Effect,
  type Force,
  type Layer,
  type Step,
} from '../document/index.ts';
import { effectOf } from '../testing/effects.ts';
import { bendingTube } from '../testing/rigs.ts';
import { findings } from './findings.ts';

const RIGS = new Map([['figure', bendingTube()]]);
const PICTURE = { asset: 'e'.repeat(64), name: 'Reeds' };
const quiet = { refused: {}, isBudgetFull: false };
const said = (effect: Effect, missing = new Map<string, string>()) =>
  findings(effect, RIGS, { ...quiet, missing }).filter(({ id }) => id.includes('/look/') || id.includes('nothing'));
const looked = (...steps: Step[]) =>
  effectOf((layer) => {
    layer.look = { kind: 'own', steps: collectionOf(steps.map((step, n) => [`s${n}`, step])) };
  });

describe('findings of looks', () => {
  it('name the layer and the picture that could not be had, and mend it by what needs none', () => {
    const effect = looked({ ...newStep('picture'), picture: PICTURE }, newStep('tint') as Step);
    expect(said(effect)).toEqual([]);
    const missing = new Map([[PICTURE.asset, 'this picture is damaged']]);
    const [finding] = said(effect, missing);
    expect(finding!.sentence).toMatch(/shows nothing of Reeds.*this picture is damaged/);
    const mended = structuredCopy(effect);
    finding!.mend!.apply(mended);
    expect(said(mended, missing)).toEqual([]);
    const { look } = mended.layers.byId['motes']!;
    expect(look.kind === 'own' && look.steps.order.map((id) => look.steps.byId[id]!.kind)).toEqual(['drawn', 'tint']);
  });

  it('tell of a step without a picture, but not of one that is muted or needs none', () => {
    expect(said(looked(newStep('picture')))[0]!.sentence).toMatch(/without a picture/);
    expect(said(looked({ ...newStep('picture'), muted: true }))).toEqual([]);
    expect(said(looked(newStep('dissolve') as Step))).toEqual([]);
    const by = newStep('dissolve') as Step;
    setStep(by, 'by', 'a picture');
    const effect = looked(by);
    const [finding] = said(effect);
    expect(finding!.sentence).toMatch(/without a picture/);
    const mended = structuredCopy(effect);
    finding!.mend!.apply(mended);
    expect(said(mended)).toEqual([]);
  });

  it('tell what mirrors the sky in place of a picture that could not be had', () => {
    const effect = effectOf((layer) => {
      layer.drawn = newDrawn('mesh');
      layer.drawn.meshes = collectionOf([['a', { asset: 'a'.repeat(64), name: 'Salt', chance: 1 }]]);
      layer.settings['appearance.lit'].base = { kind: 'fixed', value: 'card' };
    });
    effect.stage.air.surroundings.picture = PICTURE;
    const missing = new Map([[PICTURE.asset, 'this picture is damaged']]);
    expect(said(effect)).toEqual([]);
    const [finding] = said(effect, missing);
    expect(finding!.sentence).toMatch(/mirrors the sky, for Reeds.*this picture is damaged/);
    const mended = structuredCopy(effect);
    finding!.mend!.apply(mended);
    expect(said(mended, missing)).toEqual([]);
    const off = structuredCopy(effect);
    off.stage.air.surroundings.isOn = false;
    expect(said(off, missing)).toEqual([]);
  });

  it('name what is drawn without a mesh, a skin or a thing that could not be had', () => {
    const gone = { asset: 'd'.repeat(64), name: 'Salt' };
    const effect = effectOf((layer, whole) => {
      layer.drawn = newDrawn('mesh');
      layer.drawn.meshes = collectionOf([
        ['a', { ...gone, chance: 1 }],
        ['b', { asset: 'c'.repeat(64), name: 'Reed', chance: 1 }],
      ]);
      whole.stage.things = collectionOf([['bogling', newThing('Bogling', gone.asset)]]);
      whole.surfaces = collectionOf([['s', newSurface('mesh', { place: inWorld(), ...gone })]]);
    });
    const missing = new Map([[gone.asset, 'there is no such asset']]);
    const all = (document: Effect) => findings(document, new Map(), { ...quiet, missing });
    const of = (document: Effect, part: RegExp) => all(document).find(({ sentence }) => part.test(sentence));
    expect(findings(effect, new Map(), quiet).some(({ sentence }) => sentence.includes('could not be had'))).toBe(
      false,
    );
    const parts = [
      /is drawn without Salt, for it could not be had: there is no such asset/,
      /Bogling does not stand on the stage, for it could not be had: there is no such asset/,
      /A surface is never met, for Salt could not be had: there is no such asset/,
    ];
    for (const part of parts) {
      const mended = structuredCopy(effect);
      of(effect, part)!.mend!.apply(mended);
      expect(of(mended, part)).toBeUndefined();
    }
    const skin = structuredCopy(effect);
    skin.layers.byId['motes']!.drawn = newDrawn('body', 'bogling');
    expect(of(skin, /shows nothing, for Bogling could not be had/)).toBeDefined();
  });

  it('tell which numbers had no room to differ', () => {
    const steps = Array.from({ length: 3 }, () => {
      const step = newStep('drawn') as Step;
      setStep(step, 'shape', 'bolt');
      for (const name of ['softness', 'width', 'jags', 'struck']) setStep(step, name, [1, 2]);
      return step;
    });
    expect(said(looked(...steps))[0]!.sentence).toMatch(
      /softness of its drawn shape, width of its drawn shape.*stand at their middle/,
    );
    expect(said(looked(...steps.slice(0, 2)))).toEqual([]);
  });

  it('names numbers and forces as the interface does', () => {
    const step = newStep('scroll');
    for (const name of ['offsetAcross', 'offsetAlong', 'turn'] as const) setStep(step, name, [0, 1]);
    const effect = looked(step, structuredCopy(step) as Step, structuredCopy(step) as Step);
    expect(said(effect)[0]!.sentence).toContain('shifted along of its scroll');
    const layer = effect.layers.byId['motes']!;
    const curl = newForce('curl') as Extract<Force, { kind: 'curl' }>;
    curl.settings.strength.base = { kind: 'fixed', value: 0 };
    layer.forces = collectionOf([['c', curl]]);
    const all = findings(effect, new Map(), quiet).map(({ sentence }) => sentence);
    expect(all).toContain('motes has curl noise that does nothing: it has no strength.');
  });

  it('do not take a particle that dissolves before its death for one that pops out', () => {
    const pops = (end: number) => {
      const step = newStep('dissolve');
      step.settings.amount.base = { kind: 'fixed', value: 100 };
      step.settings.amount.shapers = collectionOf([
        [
          'a',
          curveShaper([
            [0, 0],
            [1, end],
          ]),
        ],
      ]);
      const effect = effectOf((layer) => {
        layer.settings['life.opacity'].shapers = collectionOf([]);
        layer.look = { kind: 'own', steps: collectionOf([['d', step]]) };
      });
      return findings(effect, RIGS, quiet).filter(({ sentence }) => sentence.includes('pops out')).length;
    };
    expect(pops(1)).toBe(0);
    expect(pops(0.5)).toBe(1);
  });

  it('say why meshes, skins and haze show nothing', () => {
    const drawn = (change: (layer: Layer, effect: Effect) => void) => said(effectOf(change));
    expect(drawn((layer) => (layer.drawn = newDrawn('mesh')))[0]!.sentence).toMatch(/no mesh to draw/);
    expect(
      drawn((layer) => {
        const meshes = collectionOf([['m', { asset: PICTURE.asset, name: 'Reed', chance: 0 }]]);
        layer.drawn = { ...newDrawn('mesh'), meshes };
      })[0]!.sentence,
    ).toMatch(/none of its meshes has a chance/);
    expect(drawn((layer) => (layer.drawn = newDrawn('body', 'gone')))[0]!.sentence).toMatch(
      /does not stand on the stage/,
    );
    const effect = effectOf((layer) => {
      layer.drawn = newDrawn('haze');
      layer.drawn.settings.bends.base = { kind: 'fixed', value: 'by a picture' };
    });
    const [finding] = said(effect);
    expect(finding!.sentence).toMatch(/bends nothing.*none is chosen/);
    finding!.mend!.apply(effect);
    expect(said(effect)).toEqual([]);
  });
});
