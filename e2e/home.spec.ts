import { expect, test } from './test.ts';
import { readFileSync } from 'node:fs';
import { newEffect } from '@jinx/core/document';
import { parcelOf, readParcel, writeParcel } from '@jinx/core/formats';
import { addEffect } from './bench.ts';

const NAME = `Home ${Date.now().toString(36)}`;
let project = '';
test.beforeEach(async ({ page }) => {
  project = ((await (await page.request.post('/api/projects', { data: { name: NAME } })).json()) as { id: string })
    .id;
});
test.afterEach(async ({ page }) => {
  await page.request.delete(`/api/projects/${project}`);
});

test('deleting asks first, and can be left be', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: `Delete ${NAME}` }).click();
  await page.locator('.ant-popconfirm').getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByRole('link', { name: NAME })).toBeVisible();
  expect((await page.request.get(`/api/projects/${project}`)).status()).toBe(200);
  await page.getByRole('button', { name: `Delete ${NAME}` }).click();
  await page.locator('.ant-popconfirm').getByRole('button', { name: 'Delete' }).click();
  await expect(page.getByText(`${NAME} was deleted. It can be brought back for 30 days`)).toBeVisible();
  await expect(page.getByRole('link', { name: NAME })).toHaveCount(0);
  expect((await page.request.get(`/api/projects/${project}`)).status()).toBe(404);
});

test('an effect is handed over from the list as from the bench: a parcel that reads back whole', async ({ page }) => {
  const document = newEffect('Reed “light” / 2', 11);
  await addEffect(page, project, document);
  await page.goto(`/projects/${project}`);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: /^Hand over Reed/ }).click();
  await page.getByRole('textbox', { name: 'What may be done with the effects' }).fill('Fenlight only');
  await page.getByRole('button', { name: 'Save the parcel' }).click();
  const bytes = new Uint8Array(readFileSync(await (await download).path()));
  const { effects, licence } = readParcel(bytes);
  expect([effects[0]!.effect, licence]).toEqual([document, 'Fenlight only']);
});

test('an address that leads nowhere says so, and goes home', async ({ page }) => {
  await page.goto('/effects/00000000-0000-4000-8000-000000000000');
  await expect(page.getByText('There is no such effect: it may have been deleted.')).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Projects' })).toBeVisible();
});

test('the list waits for the server, and says so when it is not there', async ({ page }) => {
  await page.route('**/api/projects', (route) => route.abort());
  await page.goto('/');
  await expect(page.getByText('The server does not answer: is Jinx still running?')).toBeVisible();
});

test('what was deleted is brought back: a project from home, an effect from its project', async ({ page }) => {
  await addEffect(page, project, newEffect('Marsh light', 12));
  await page.goto(`/projects/${project}`);
  await page.getByRole('button', { name: 'Delete Marsh light' }).click();
  await page.locator('.ant-popconfirm').getByRole('button', { name: 'Delete' }).click();
  await expect(page.getByText('Marsh light was deleted.')).toBeVisible();
  const deleted = page.getByRole('list', { name: 'Deleted' });
  await expect(deleted).toContainText('Marsh light');
  await deleted.getByRole('button', { name: 'Bring back Marsh light' }).click();
  await expect(page.getByRole('button', { name: 'Hand over Marsh light' })).toBeVisible();
  await expect(deleted).toHaveCount(0);

  await page.request.delete(`/api/projects/${project}`);
  await page.goto('/');
  await page
    .getByRole('button', { name: `Bring back ${NAME}` })
    .last()
    .click();
  await expect(page.getByRole('link', { name: NAME })).toBeVisible();
});

test('a parcel that meets a namesake asks, changes nothing until then, and a second time changes nothing', async ({
  page,
}) => {
  await addEffect(page, project, newEffect('Marsh light', 12));
  await page.goto(`/projects/${project}`);
  const parcel = Buffer.from(await writeParcel(parcelOf(newEffect('Marsh light', 99), [])));
  const bring = async (name: string) => {
    const chooser = page.waitForEvent('filechooser');
    await page.getByRole('button', { name: 'Bring in files…' }).click();
    await (await chooser).setFiles({ name, mimeType: 'application/zip', buffer: parcel });
  };
  await bring('light.parcel.zip');
  const question = page.getByRole('group', { name: 'What to do with light.parcel.zip' });
  await expect(question).toContainText('The effect “Marsh light”');
  await expect(page.getByRole('button', { name: /^Hand over Marsh light/ })).toHaveCount(1);
  await question.getByRole('radio', { name: /keep both/ }).check();
  await question.getByRole('button', { name: 'Take the parcel in' }).click();
  await expect(page.getByRole('button', { name: 'Hand over Marsh light 2' })).toBeVisible();
  // A parcel is known by how it begins, where its name does not tell.
  await bring('light');
  await expect(
    page.getByText('Marsh light 2 is here already, with all that is used: nothing was changed.'),
  ).toBeVisible();
  await expect(page.getByRole('button', { name: /^Hand over Marsh light/ })).toHaveCount(2);
});

test('files that are brought together show how far they are; one is cancelled, one is refused, one is there', async ({
  page,
}) => {
  await page.goto(`/projects/${project}`);
  // This one never gets to the server.
  await page.route('**/assets?name=slow.png', () => undefined);
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Bring in files…' }).click();
  const moth = readFileSync(new URL('../demo/kit/moth.png', import.meta.url));
  const as = (name: string, buffer: Buffer) => ({ name, mimeType: 'application/octet-stream', buffer });
  await (
    await chooser
  ).setFiles([as('slow.png', moth), as('night moth.png', moth), as('broken.glb', Buffer.from('no figure'))]);
  const rows = page.getByRole('list', { name: 'Files that are brought in' }).getByRole('listitem');
  await expect(rows.filter({ hasText: 'broken.glb' })).toContainText('this is not a GLB file');
  await expect(page.getByRole('list', { name: 'Figures and pictures' })).toContainText('picture, 128 kB');
  await expect(page.getByRole('progressbar', { name: 'Sending slow.png' })).toBeVisible();
  await page.getByRole('button', { name: 'Cancel slow.png' }).click();
  await page.getByRole('button', { name: 'Dismiss broken.glb' }).click();
  await expect(rows).toHaveCount(0);
  const { assets } = (await (await page.request.get(`/api/projects/${project}`)).json()) as {
    assets: { name: string }[];
  };
  expect(assets.map(({ name }) => name)).toEqual(['night moth']);
  // Its thumbnail is made here and kept by the server.
  await expect
    .poll(async () => (await (await page.request.get(`/api/projects/${project}`)).json()).assets[0].hasThumbnail)
    .toBe(true);
});

test('effects are found by their names, ordered, and stand on pages', async ({ page }) => {
  for (let n = 1; n <= 64; n++) await addEffect(page, project, newEffect(`Reed ${n}`, n));
  await page.goto(`/projects/${project}`);
  const cards = page.locator('a.card');
  await expect(cards).toHaveCount(60);
  await expect(cards.first()).toContainText('Reed 64');
  await page.getByTitle('2', { exact: true }).click();
  await expect(cards).toHaveCount(4);
  await page.locator('.ant-segmented-item', { hasText: 'Name' }).click();
  await expect(cards).toHaveCount(60);
  await expect(cards.first()).toContainText('Reed 1');
  await page.getByRole('searchbox', { name: 'Find an effect by its name' }).fill('reed 12');
  await expect(cards).toHaveCount(1);
  await page.goto('/');
  await page.getByRole('searchbox', { name: 'Find a project or an effect' }).fill('reed 33');
  await expect(cards).toHaveCount(1);
  await expect(cards).toHaveAttribute('href', /^\/effects\//);
});
