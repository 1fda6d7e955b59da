import { chromium, type Browser, type Page } from '@playwright/test';
import type { ProjectDetail, ProjectSummary } from '@jinx/core/answers';
import { CHROMIUM } from '../../server/chromium.ts';
import { portForWeb, runningServer } from '../start.mjs';

/** The demo's project in a started Jinx, and a page to take pictures with. */
export interface Fenlight {
  readonly browser: Browser;
  readonly page: Page;
  /** Where Jinx is served. */
  readonly address: string;
  readonly project: string;
  /** The hash of an asset, by its name in small letters. */
  readonly hashOf: (name: string) => string;
}

export async function openFenlight(): Promise<Fenlight> {
  const address = `http://localhost:${runningServer()?.port ?? portForWeb()}`;
  const browser = await chromium.launch(CHROMIUM);
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const ask = async <T>(at: string) => (await (await page.request.get(`${address}/api${at}`)).json()) as T;
  const { id: project } = (await ask<ProjectSummary[]>('/projects')).find(({ name }) => name === 'Fenlight')!;
  const { assets } = await ask<ProjectDetail>(`/projects/${project}`);
  const hashOf = (name: string) => assets.find((asset) => asset.name.toLowerCase() === name)!.hash;
  return { browser, page, address, project, hashOf };
}
