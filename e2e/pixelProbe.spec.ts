import { expect, goWithin, test, type Page } from './test.ts';
import { atEffect, collectionOf, newEffect, newForce, newStep, setNumber, type Effect } from '@jinx/core/document';
import { addEffect, differing, goTo, particlesOf, pixels, living } from './bench.ts';
import { choose, standing, VIEW } from './oneLayer.ts';

const SIZE = 0.5;

/** From front to back: grey glass that darkens, many small cards of light, a red card; and one card far off to the side. */
function stack(): Effect {
  const effect = newEffect('Stack', 7);
  effect.stage.cameras = collectionOf([['front', { ...VIEW, name: 'Front' } as never]]);
  const shade = standing('Shade', 1);
  choose(shade, 'appearance.blend', 'multiply');
  choose(shade, 'life.colour', { hex: '#808080' });
  const shape = newStep('drawn');
  shape.settings.shape.base = { kind: 'fixed', value: 'disc' };
  shade.look = { kind: 'own', steps: collectionOf([['shape', shape]]) };
  const cards = standing('Cards', 2);
  cards.source = { kind: 'box', place: atEffect([0, 1, 0]) };
  choose(cards, 'source.size', [3, 3, 1]);
  setNumber(cards, 'births.standing', 60);
  setNumber(cards, 'life.size', SIZE);
  setNumber(cards, 'life.intensity', 0.1);
  choose(cards, 'appearance.blend', 'additive');
  const red = standing('Red', 3);
  choose(red, 'life.colour', { hex: '#c02020' });
  const aside = standing('Aside', 4);
  aside.source = { kind: 'point', place: atEffect([1.4, 1, 0]) };
  effect.layers = collectionOf([
    ['shade', shade],
    ['cards', cards],
    ['red', red],
    ['aside', aside],
  ]);
  return effect;
}

/** Sparks that fall against a breeze of the effect's. */
function falling(): Effect {
  const effect = newEffect('Falling', 7);
  effect.stage.cameras = collectionOf([['front', { ...VIEW, name: 'Front' } as never]]);
  const layer = standing('Sparks', 1);
  layer.forces = collectionOf([['gravity', newForce('gravity')]]);
  const breeze = newForce('wind');
  breeze.muted = true;
  effect.forces = collectionOf([['breeze', { force: breeze, layers: [] }]]);
  effect.layers = collectionOf([['sparks', layer]]);
  return effect;
}

let id = '';
async function open(page: Page, effect: Effect): Promise<void> {
  const projects = (await (await page.request.get('/api/projects')).json()) as { id: string }[];
  id = await addEffect(page, projects[0]!.id, effect);
  await goWithin(page, `/effects/${id}`);
  await living(page, 0);
}
test.afterEach(async ({ page }) => {
  await page.request.delete(`/api/effects/${id}`);
});
const made = (page: Page) =>
  page.locator('[data-made]').evaluateAll((all) => all.map((one) => (one as HTMLElement).dataset['made']));
const row = (page: Page, layer: string) => page.locator(`[data-made="${layer}"]`);
const red = async (page: Page) => (await pixels(page, 101, 101))[4 * (50 * 101 + 50)]!;

test('a pixel is taken apart into layers, particles and steps, and they are muted from there', async ({ page }) => {
  await open(page, stack());
  await goTo(page, 20);
  // Guides are no part of the picture that is taken apart.
  await page.keyboard.press('c');
  const before = await red(page);
  await page.keyboard.press('p');
  await page.getByRole('button', { name: /Press a pixel/ }).press('Enter');
  await expect.poll(() => made(page)).toEqual(['Shade', 'Cards', 'Red', 'stage']);
  await expect(row(page, 'Shade')).toContainText('makes it darker by');
  await expect(row(page, 'Red')).toContainText('makes it brighter by');
  await expect(row(page, 'Red')).toContainText('with 1 particle:');
  // Cards that the line of sight through the middle goes through.
  const { positions } = await particlesOf(page, 'Cards');
  let [through, all] = [0, 0];
  for (let at = 0; at < positions.length; at += 3, all++)
    if (Math.abs(positions[at]!) < SIZE / 2 && Math.abs(positions[at + 1]! - 1) < SIZE / 2) through++;
  expect(all).toBe(60);
  expect(through).toBeGreaterThan(0);
  await expect(row(page, 'Cards')).toContainText(`with ${through} particle`);

  // One of them under the glass is one of those.
  await row(page, 'Cards').getByRole('button', { name: 'particle 1 of Cards' }).click();
  const place = (await page.locator('[data-probe] [data-value="place"]').innerText()).split(',').map(parseFloat);
  expect(Math.abs(place[0]!)).toBeLessThan(SIZE / 2);
  expect(Math.abs(place[1]! - 1)).toBeLessThan(SIZE / 2);
  await page.keyboard.press('p');
  await page.getByRole('button', { name: /Press a pixel/ }).press('Enter');

  await row(page, 'Shade').getByRole('button', { name: 'Its look, step by step' }).click();
  const step = row(page, 'Shade').locator('[data-step="Drawn shape"]');
  await expect(step).toContainText('covers');
  await row(page, 'Shade').getByRole('button', { name: 'Hide it' }).click();
  await expect.poll(() => made(page)).toEqual(['Cards', 'Red', 'stage']);
  expect(await red(page)).toBeGreaterThan(before + 20);
  await page.getByRole('button', { name: 'show Shade', exact: true }).click();
  await expect.poll(() => made(page)).toEqual(['Shade', 'Cards', 'Red', 'stage']);
  expect(Math.abs((await red(page)) - before)).toBeLessThan(3);
  // Taking it apart leaves nothing of the picture changed.
  const whole = await pixels(page, 101, 101);
  await page.locator('[data-pixel]').focus();
  for (let n = 0; n < 14; n++) await page.keyboard.press('Shift+ArrowRight');
  for (let n = 0; n < 12; n++) await page.keyboard.press('Shift+ArrowUp');
  await expect.poll(() => made(page)).not.toContain('Red');
  expect(differing(whole, await pixels(page, 101, 101))).toBe(0);
});

test('of a particle under the glass it is told what each force does to it, and each is muted there', async ({
  page,
}) => {
  await open(page, falling());
  await goTo(page, 6);
  await page.keyboard.press('g');
  const box = (await page.getByRole('button', { name: /Press a particle/ }).boundingBox())!;
  await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2);
  const gravity = page.locator('[data-force="gravity"]');
  const wind = page.locator('[data-force="wind"]');
  await expect(gravity).toContainText('9.81 m/s² (0, -9.81, 0)');
  await expect(page.locator('[data-pull="gravity"]')).toBeVisible();
  await expect(page.locator('[data-pull="wind"]')).toHaveCount(0);
  await wind.getByRole('button', { name: 'Unmute' }).click();
  await expect(wind).toContainText('m/s²');
  await expect(page.locator('[data-pull="wind"]')).toHaveCount(1);
  await gravity.getByRole('button', { name: 'Mute' }).click();
  await expect(gravity).not.toContainText('m/s²');
  await expect(page.locator('[data-pull="gravity"]')).toHaveCount(0);
});
