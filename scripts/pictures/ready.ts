// Makes the small pictures of ready layers that play in the list of them, from a started Jinx with the demo: run with
// `npx tsx scripts/pictures/ready.ts [KIND…]` when one of them changed.
import { mkdirSync, writeFileSync } from 'node:fs';
import { addReady, READY, READY_EVERY, READY_INSTANTS, READY_MESH, type ReadyKind } from '@jinx/core/building';
import { atBone, collectionOf, newEffect, newThing } from '@jinx/core/document';
import type { View } from '@jinx/player/scene';
import { openFenlight } from './fenlight.ts';
import { takeInstants } from './instants.ts';

/** Points of each instant. */
const [WIDE, TALL] = [112, 70];
/** What is over a body or goes round it is seen with a figure, and from where the whole figure is seen. */
const WITH_FIGURE: readonly ReadyKind[] = [
  ...(['halo', 'streaks', 'swirl', 'orbit', 'dust', 'bent', 'struck', 'trail', 'blade'] as const),
  ...(['skin', 'crackle', 'held', 'mesh', 'debris', 'light'] as const),
];
const FIGURE: View = { position: [1.1, 1.5, 3.6], target: [0, 0.9, 0], fieldOfView: 36, follows: false };
const NEAR: View = { position: [0.4, 1.2, 2.1], target: [0, 1.05, 0], fieldOfView: 36, follows: false };
const GROUND: View = { position: [1.2, 2.2, 3.2], target: [0, 0.1, 0], fieldOfView: 42, follows: false };
const viewOf = (kind: ReadyKind) =>
  ['mark', 'line', 'ring'].includes(kind) ? GROUND : WITH_FIGURE.includes(kind) ? FIGURE : NEAR;

const folder = new URL('../../web/public/ready/', import.meta.url).pathname;
mkdirSync(folder, { recursive: true });
const { browser, page, address, project, hashOf } = await openFenlight();

const asked = process.argv.slice(2);
for (const kind of Object.keys(READY) as ReadyKind[]) {
  if (asked.length > 0 && !asked.includes(kind)) continue;
  const effect = newEffect('Ready', 5);
  const hasFigure = WITH_FIGURE.includes(kind);
  // The sweep of a blade is seen with a clip that swings it.
  const sedge = {
    ...newThing('Sedge', hashOf('sedge')),
    ...(kind === 'trail' || kind === 'blade' ? { clip: 'sweep' } : {}),
  };
  if (hasFigure) effect.stage.things = collectionOf([['sedge', sedge]]);
  effect.stage.cameras = collectionOf([['front', { name: 'Front', ...viewOf(kind) }]]);
  const mesh = READY_MESH[kind]?.replace('.glb', '');
  addReady(effect, 'made', kind, {
    salt: 7,
    beside: '',
    blade: [atBone('sedge', 'hand.right', [0, 0.1, 0]), atBone('sedge', 'hand.right', [0, 0.9, 0])],
    mesh: mesh === undefined ? null : { asset: hashOf(mesh), name: mesh },
  });
  const posted = await page.request.post(`${address}/api/projects/${project}/effects`, {
    data: { document: effect },
  });
  if (!posted.ok()) throw new Error(`${kind}: ${await posted.text()}`);
  const { id } = (await posted.json()) as { id: string };
  const picture = await takeInstants(page, {
    address: `${address}/effects/${id}`,
    steps: Array.from({ length: READY_INSTANTS }, (_, n) => 8 + n * READY_EVERY),
    size: [WIDE, TALL],
    quality: 0.78,
  });
  writeFileSync(`${folder}${kind}.webp`, picture);
  await page.request.delete(`${address}/api/effects/${id}`);
  console.log(kind);
}
await browser.close();
