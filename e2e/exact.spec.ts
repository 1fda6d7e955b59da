import { expect, goWithin, test } from './test.ts';
import { atEffect, burst, collectionOf, newEffect, newLayer, setNumber } from '@jinx/core/document';
import { addEffect, chapter, choose, goTo, living, particlesOf, type } from './bench.ts';
import { pickColour } from './choose.ts';

/** Two hundred motes that all leave at once from one place. */
function motes() {
  const effect = newEffect('Motes', 11);
  effect.stretches = { opening: 3, hold: { kind: 'none' }, closing: 0, preRoll: 0 };
  const layer = newLayer('Motes', 4);
  layer.source = { kind: 'point', place: atEffect([0, 1, 0]) };
  setNumber(layer, 'births.rate', 0);
  setNumber(layer, 'births.life', 3);
  setNumber(layer, 'motion.speed', 0);
  layer.bursts = collectionOf([['all', burst('opening', 0, 200)]]);
  effect.layers = collectionOf([['motes', layer]]);
  return effect;
}

let project = '';
test.beforeEach(async ({ page }) => {
  project = (await (await page.request.post('/api/projects', { data: { name: 'Exact' } })).json()).id;
  await goWithin(page, `/effects/${await addEffect(page, project, motes())}`);
  await living(page, 100);
  await goTo(page, 60);
});
test.afterEach(async ({ page }) => {
  await page.request.delete(`/api/projects/${project}`);
});

test('each mote has one of two colours by their weights, or any between them', async ({ page }) => {
  const coloursNow = async () => {
    const { colours } = await particlesOf(page, 'Motes');
    return Array.from({ length: colours.length / 3 }, (_, i) => colours.slice(i * 3, i * 3 + 3));
  };
  await chapter(page, 'Life');
  await page.locator('[data-address$="life.colour"]').getByRole('button', { name: 'or…' }).click();
  await page.getByRole('option', { name: 'one of' }).click();
  await pickColour(page, 'colour, 1', '#ff0000');
  await pickColour(page, 'colour, 2', '#0000ff');
  await type(page, /^weight of colour 2/, '3');
  await goTo(page, 60);
  const several = await coloursNow();
  const blue = several.filter(([r, , b]) => r === 0 && b === 1).length;
  expect(several.filter(([r, , b]) => r === 1 && b === 0).length).toBe(several.length - blue);
  expect(blue / several.length).toBeGreaterThan(0.65);
  expect(blue / several.length).toBeLessThan(0.85);

  await choose(page, 'colour, what kind', { label: 'anywhere between' });
  await goTo(page, 60);
  expect(new Set((await coloursNow()).map(String)).size).toBeGreaterThan(150);

  // A gradient over age multiplies what differs; a stop that is half as opaque is seen in the opacity.
  await page.getByRole('button', { name: 'Change it over age' }).click();
  await expect(page.getByRole('combobox', { name: /^what the gradient over age does/ })).toHaveText('multiplies it');
});

test('each mote leaves with a velocity of its own on each axis', async ({ page }) => {
  await chapter(page, 'Motion');
  const beside = page.locator('[data-address$="motion.velocity"]');
  await beside.locator('xpath=following-sibling::button').first().click();
  await page.getByRole('option', { name: 'anywhere between two' }).click();
  await type(page, /^velocity beside, up to, x/, '2');
  await type(page, /^velocity beside, up to, z/, '0.5');
  await goTo(page, 60);
  const { positions } = await particlesOf(page, 'Motes');
  const reach = [0, 1, 2].map((axis) => {
    const all = positions.filter((_, n) => n % 3 === axis);
    return Math.max(...all) - Math.min(...all);
  });
  expect(reach[0]!).toBeGreaterThan(1.7);
  expect(reach[1]!).toBeLessThan(0.01);
  expect(reach[2]!).toBeGreaterThan(0.4);
  expect(reach[2]!).toBeLessThan(0.55);
});

test('a lifetime is one of several, and hangs on the effect’s time', async ({ page }) => {
  await chapter(page, 'Births');
  await type(page, /^lifetime/, '1.2 or 2.6 ×3');
  await expect(page.getByRole('button', { name: /^lifetime: 1.2 or 2.6 ×3 s/ })).toBeVisible();
  await goTo(page, 90);
  const { ages } = await particlesOf(page, 'Motes');
  expect(ages.length).toBeGreaterThan(125);
  expect(ages.length).toBeLessThan(175);
});
