import { expect, goWithin, test } from './test.ts';
import {
  atEffect,
  burst,
  collectionOf,
  inWorld,
  newDrawn,
  newEffect,
  newForce,
  newFront,
  newLayer,
  newSurface,
  newThing,
  setNumber,
  type Layer,
} from '@jinx/core/document';
import { addEffect, chapter, choose, goTo, living, particlesOf, type } from './bench.ts';

/** Two hundred that are born at once and stay. */
function layerOf(name: string, salt: number, shape: (layer: Layer) => void): Layer {
  const layer = newLayer(name, salt);
  layer.source = { kind: 'ring', place: atEffect([0, 1, 0]) };
  setNumber(layer, 'births.rate', 0);
  setNumber(layer, 'births.life', 3);
  setNumber(layer, 'motion.speed', 0);
  layer.bursts = collectionOf([['all', burst('opening', 0, 200)]]);
  shape(layer);
  return layer;
}
function exact(assets: { sedge: string; salt: string }) {
  const effect = newEffect('Exact sources', 11);
  effect.stretches = { opening: 3, hold: { kind: 'none' }, closing: 0, preRoll: 0 };
  effect.stage.things = collectionOf([['sedge', newThing('Sedge', assets.sedge)]]);
  const skin = layerOf('Skin', 1, (layer) => (layer.source = { kind: 'mesh', thing: 'sedge', bones: [] }));
  const ring = layerOf('Ring', 2, (layer) => {
    setNumber(layer, 'motion.speed', 1);
    layer.settings['motion.launch'].base = { kind: 'fixed', value: 'tangent' };
  });
  const rain = layerOf('Rain', 3, (layer) => {
    layer.source = { kind: 'point', place: atEffect([0, 1, 0]) };
    layer.forces = collectionOf([['fall', newForce('gravity')]]);
  });
  const shell = layerOf('Shell', 4, (layer) => {
    layer.source = { kind: 'point', place: atEffect([0, 3, 0]) };
    layer.bursts = collectionOf([]);
    setNumber(layer, 'births.standing', 1);
    setNumber(layer, 'life.size', 2);
    const meshes = collectionOf([['salt', { asset: assets.salt, name: 'Salt', chance: 1 }]]);
    layer.drawn = { ...newDrawn('mesh'), meshes };
    layer.settings['appearance.facing'].base = { kind: 'fixed', value: 'own frame' };
  });
  const dust = layerOf('Dust', 5, () => undefined);
  const border = newFront('Border', 'plane', inWorld());
  border.settings.border.base = { kind: 'fixed', value: 1 };
  border.settings.border.shapers = collectionOf([]);
  border.settings.noise.base = { kind: 'fixed', value: 0 };
  effect.fronts = collectionOf([['border', border]]);
  const held = layerOf('Held', 6, (layer) => {
    layer.source = { kind: 'line', place: atEffect([0, 1, 0]) };
    setNumber(layer, 'source.length', 2);
    setNumber(layer, 'motion.speed', 1);
    layer.settings['motion.launch'].base = { kind: 'fixed', value: 'axis' };
    layer.settings['motion.axis'].base = { kind: 'fixed', value: [1, 0, 0] };
    layer.front = 'border';
  });
  effect.surfaces = collectionOf([['ground', { ...newSurface('ground', { place: inWorld() }), layers: ['rain'] }]]);
  effect.layers = collectionOf(Object.entries({ skin, ring, rain, dust, held, shell }));
  return effect;
}

let id = '';
test.afterEach(async ({ page }) => {
  if (id) await page.request.delete(`/api/effects/${id}`);
});

test('what each mote is born on, and how it leaves, is exactly as chosen', async ({ page }) => {
  const projects = (await (await page.request.get('/api/projects')).json()) as { id: string; name: string }[];
  const { id: project } = projects.find(({ name }) => name === 'Fenlight')!;
  const { assets } = (await (await page.request.get(`/api/projects/${project}`)).json()) as {
    assets: { name: string; hash: string }[];
  };
  const hashOf = (name: string) => assets.find((asset) => asset.name.toLowerCase() === name)!.hash;
  id = await addEffect(page, project, exact({ sedge: hashOf('sedge'), salt: hashOf('salt') }));
  await goWithin(page, `/effects/${id}`);
  await living(page, 100);
  const row = (name: string) =>
    page.getByRole('row', { name: new RegExp(`^${name}`) }).click({ position: { x: 60, y: 10 } });
  const threes = (all: readonly number[]) =>
    Array.from({ length: all.length / 3 }, (_, i) => all.slice(i * 3, i * 3 + 3) as [number, number, number]);
  const places = async (name: string) => threes((await particlesOf(page, name)).positions);

  await test.step('coloured by the picture of the mesh', async () => {
    await row('Skin');
    await chapter(page, 'Life');
    await page.locator('[data-address$="life.colour"]').getByRole('button', { name: 'or…' }).click();
    await page.getByRole('option', { name: 'the mesh’s where it is born' }).click();
    await goTo(page, 20);
    const colours = threes((await particlesOf(page, 'Skin')).colours);
    // A warden in green with brown boots: many colours, none of them white.
    expect(new Set(colours.map((rgb) => rgb.map((c) => Math.round(c * 20)).join())).size).toBeGreaterThan(8);
    for (const rgb of colours) expect(Math.min(...rgb)).toBeLessThan(0.9);
  });

  await test.step('along a tangent, turned by an angle', async () => {
    await row('Ring');
    await chapter(page, 'Motion');
    await type(page, /^angle of the tangent/, '90');
    await goTo(page, 30);
    // Turned by a right angle out of the way round, all leave outward or inward: half a metre either way.
    for (const [x, , z] of await places('Ring'))
      expect(Math.abs(Math.abs(Math.hypot(x, z) - 0.5) - 0.5)).toBeLessThan(0.06);
  });

  await test.step('scattered off rough ground', async () => {
    await row('Rain');
    await chapter(page, 'Motion');
    await type(page, /^ground, roughness/, '100');
    await goTo(page, 50);
    const across = (await places('Rain')).map(([x, , z]) => Math.hypot(x, z));
    expect(across.filter((far) => far > 0.02).length).toBeGreaterThan(180);
  });

  await test.step('born on a mesh that the effect draws', async () => {
    await row('Dust');
    await chapter(page, 'Source');
    await choose(page, 'source', { label: 'on the mesh of a layer' });
    await goTo(page, 10);
    // The crystal stands on its edge, two metres tall, its middle three metres up.
    const all = await places('Dust');
    expect(Math.min(...all.map(([, y]) => y))).toBeGreaterThan(1.95);
    expect(Math.max(...all.map(([, y]) => y))).toBeGreaterThan(3.7);
    for (const [, , z] of all) expect(Math.abs(z)).toBeLessThan(0.2);
  });

  await test.step('freed in a band of a front', async () => {
    await row('Held');
    await chapter(page, 'Source');
    await choose(page, 'front, frees', { label: 'what is in a band along its border' });
    await type(page, /^front, band/, '0.5');
    await goTo(page, 30);
    const all = await places('Held');
    expect(all.filter(([x]) => x > 0.3).length).toBeGreaterThan(30);
    for (const [x, y] of all)
      if (Math.abs(Math.abs(y - 1) - 0.25) > 0.02) expect(x > 0.3).toBe(Math.abs(y - 1) < 0.25);
  });
});
