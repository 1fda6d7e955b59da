import { expect, test, type Page } from './test.ts';
import pg from 'pg';
import { addPerson } from '@jinx/server';
import { ServerProcess } from '../server/testing/serverProcess.ts';
import { saved } from './bench.ts';
import { CLUSTER_URL, freshDatabase } from './freshDatabase.ts';

// A server on which people sign in, with a database of its own.
const PASSWORD = 'reeds at dusk';
let server: ServerProcess;
let address = '';
test.beforeAll(async () => {
  test.skip(!CLUSTER_URL, 'JINX_TEST_DATABASE_URL is not set: ./jinx test sets it');
  const url = await freshDatabase('jinx_people');
  // Its tables, and the demo, are made by a start on loopback, as whoever opens it to a team has it.
  const alone = new ServerProcess(7436, url);
  await alone.start();
  await alone.kill();
  const database = new pg.Pool({ connectionString: url });
  // One effect is enough: a page takes the pictures of all that have none.
  await database.query("delete from effects where name <> 'Wick Flame'");
  for (const name of ['Sedge', 'Tallow']) await addPerson(database, name, PASSWORD);
  await database.end();
  server = new ServerProcess(7436, url, { JINX_SIGN_IN: 'on' });
  await server.start();
  address = `http://localhost:${server.port}`;
});
test.afterAll(() => server?.kill());

async function signIn(page: Page, name: string, password = PASSWORD): Promise<void> {
  await expect(page).toHaveURL(/\/sign-in/);
  await page.getByLabel('Name', { exact: true }).fill(name);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Sign in' }).click();
}

test('people sign in, see what they have a part in, and work on it by name', async ({ page, browser }) => {
  await page.goto(`${address}/`);
  await expect(page).toHaveURL(/\/sign-in\?to=\/$/);
  await signIn(page, 'Sedge', 'not this one');
  await expect(page.getByRole('alert')).toHaveText('The name or the password is not right.');
  await signIn(page, 'Sedge');
  // What was there before anybody signed in is the first person's.
  await page.getByRole('link', { name: 'Fenlight' }).click();
  const members = page.getByRole('list', { name: 'Members' });
  await expect(members).toContainText('Sedge');

  const others = await browser.newContext();
  const other = await others.newPage();
  await other.goto(`${address}/`);
  await signIn(other, 'Tallow');
  await expect(other.getByRole('heading', { name: 'Projects' })).toBeVisible();
  await expect(other.getByRole('link', { name: 'Fenlight' })).toHaveCount(0);

  await page.getByLabel('who is to join').fill('Tallow');
  await page.getByRole('button', { name: 'Let them change things here' }).click();
  await expect(members).toContainText('Tallow');
  await page.getByRole('combobox', { name: 'what Tallow may do' }).press('ArrowDown');
  await page.locator('.ant-select-item-option', { hasText: 'may look' }).click();

  await other.reload();
  await other.getByRole('link', { name: 'Wick Flame' }).click();
  await page.getByRole('link', { name: 'Wick Flame' }).click();
  await expect(page.locator('[data-others]')).toHaveText('Also here: Tallow');
  await expect(other.locator('[data-others]')).toHaveText('Also here: Sedge');
  const rename = async (at: Page, name: string) => {
    await at.getByLabel('layer name').fill(name);
    await at.getByLabel('layer name').press('Enter');
  };
  await rename(other, 'A look only');
  await expect(other.locator('[data-saving]')).toHaveText('Not saved: You may look at this project, not change it.');
  await rename(page, 'By Sedge');
  await saved(page);
  await other.getByRole('button', { name: 'Undo' }).click();
  await expect(other.getByText(/Sedge changed this too: .*By Sedge/)).toBeVisible();

  // Signed out, nothing is seen any more.
  await page.goto(`${address}/`);
  await page.getByRole('button', { name: 'Sign out' }).click();
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  expect((await page.request.get(`${address}/api/projects`)).status()).toBe(401);
  await others.close();
});
