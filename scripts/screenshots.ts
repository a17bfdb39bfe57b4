// bin/refectum screenshots: one picture of each main view in docs/screenshots/, from the demo data.
import { join } from 'node:path';
import type { Page } from 'playwright-core';
import { openBrowser } from '../e2e/browser.ts';
import { signInAt } from '../e2e/visitor.ts';
import { root, Stand } from '../e2e/harness.ts';

/** Three lines as they come from a spreadsheet, one of them to be mended. */
async function lookThrough(page: Page): Promise<void> {
  const lines = [
    'customer,model,serial,complaint,due,volts,amps',
    'Island Buses no. 11,Ferrolux 28-110,FX 30417,low charge,,,',
    'Ferry pump room,Pumpmate 65,,no charge,2026-12-04,,',
    'Harvester Co-operative,Harrow 15-140,HR 7720,growl,,,',
  ];
  await page.waitForSelector('html[data-ready]');
  await page.fill('textarea', lines.join('\n'));
  await page.click('button:has-text("Look them through")');
  await page.waitForSelector('td:text-is("fits")');
}

async function openModel(page: Page): Promise<void> {
  await page.click('a:text-is("Ferrolux 28-90")');
  await page.waitForSelector('h1:has-text("Ferrolux 28-90")');
}

/** Three readings taken by themselves, the probes held by the simulated hands. */
async function holdStill(page: Page): Promise<void> {
  await page.waitForSelector('#entry:focus');
  const readings = page.locator('section[aria-label="Tape"] li:has(.figure)');
  await page.keyboard.press('h');
  for (let n = 0; n < 3; n++) {
    const before = await readings.count();
    await page.keyboard.press('p');
    for (let i = 0; i < 80 && (await readings.count()) === before; i++) await page.waitForTimeout(100);
  }
}

/** Until it is worked out what should be read. */
async function workOut(page: Page): Promise<void> {
  await page.waitForSelector('section[aria-label="Check at hand"] h2');
}

/** One run without load, read by the simulated instruments. */
async function feedAndRead(page: Page): Promise<void> {
  await page.waitForSelector('section[aria-label="Check at hand"] h2');
  const readings = page.locator('section[aria-label="Tape"] li:has(.figure)');
  const before = await readings.count();
  await page.keyboard.press('i');
  for (let i = 0; i < 200 && (await readings.count()) === before; i++) await page.waitForTimeout(100);
  await page.waitForTimeout(2500);
}

const views: readonly {
  name: string;
  path: string;
  ready: string;
  theme?: 'night';
  act?: (page: Page) => Promise<void>;
}[] = [
  { name: 'rack', path: '/', ready: 'section[aria-label="Ready"]' },
  { name: 'check-in', path: '/check-in', ready: '#customer' },
  { name: 'many', path: '/check-in/many', ready: 'textarea', act: lookThrough },
  { name: 'label', path: '/unit/1007/label', ready: 'img' },
  { name: 'vehicle', path: '/unit/1013/vehicle', ready: 'section[aria-label="Suspects"]' },
  { name: 'drain', path: '/unit/1014/vehicle/drain', ready: 'table' },
  { name: 'letter', path: '/unit/1013/letter', ready: 'article' },
  { name: 'sums', path: '/sums', ready: 'h1' },
  { name: 'shelf', path: '/shelf', ready: 'h1', act: openModel },
  { name: 'pictures', path: '/unit/1007/pictures', ready: 'main ul li img' },
  { name: 'work', path: '/unit/1004/work', ready: 'input:checked' },
  { name: 'shop', path: '/shop', ready: 'h1' },
  { name: 'bench', path: '/unit/1007', ready: 'section[aria-label="Suspects"]' },
  { name: 'bench-night', path: '/unit/1001', ready: 'section[aria-label="Suspects"]', theme: 'night' },
  { name: 'stand', path: '/unit/1015/stand', ready: 'section[aria-label="Output curve"] dl', act: workOut },
  { name: 'starter', path: '/unit/1016/stand', ready: 'section[aria-label="Motor curve"] dl', act: feedAndRead },
  { name: 'verdict', path: '/unit/1007/verdict', ready: 'section[aria-label="Repair"]' },
  { name: 'report', path: '/unit/1012/report', ready: 'article' },
  // Last: it takes another meter in hand, which is kept for every unit.
  { name: 'hands-free', path: '/unit/1003', ready: '#entry', act: holdStill },
];

await Stand.during(async (stand) => {
  await stand.startStandIns();
  const browser = await openBrowser();
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await signInAt(page, stand.url, 'Ansa Brimmel');
  await page.waitForTimeout(500);
  for (const { name, path, ready, theme, act } of views) {
    await context.addCookies([{ name: 'theme', value: theme ?? 'day', url: stand.url }]);
    await page.goto(stand.url + path);
    await page.waitForSelector(ready);
    await act?.(page);
    await page.waitForTimeout(700);
    await page.screenshot({ path: join(root, 'docs/screenshots', `${name}.png`) });
  }
  await browser.close();
});
