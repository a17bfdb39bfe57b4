// bin/refectum screenshots: one picture of each main view in docs/screenshots/, from the demo data.
import { join } from 'node:path';
import { openBrowser } from '../e2e/browser.ts';
import { root, Stand } from '../e2e/harness.ts';

const views: readonly { name: string; path: string; ready: string; theme?: 'night' }[] = [
  { name: 'rack', path: '/', ready: 'section[aria-label="Decided"]' },
  { name: 'check-in', path: '/check-in', ready: '#customer' },
  { name: 'vehicle', path: '/unit/1013/vehicle', ready: 'section[aria-label="Suspects"]' },
  { name: 'letter', path: '/unit/1013/letter', ready: 'article' },
  { name: 'sums', path: '/sums', ready: 'h1' },
  { name: 'bench', path: '/unit/1007', ready: 'section[aria-label="Suspects"]' },
  { name: 'bench-night', path: '/unit/1001', ready: 'section[aria-label="Suspects"]', theme: 'night' },
  { name: 'verdict', path: '/unit/1007/verdict', ready: 'section[aria-label="Repair"]' },
  { name: 'report', path: '/unit/1012/report', ready: 'article' },
];

const stand = await Stand.open();
const browser = await openBrowser();
const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
const page = await context.newPage();
await page.goto(`${stand.url}/`);
await page.waitForSelector('html[data-ready]');
await page.selectOption('#technician', { index: 1 });
await page.waitForFunction(() => document.querySelector<HTMLSelectElement>('#technician')?.value !== '');
await page.waitForTimeout(500);
for (const { name, path, ready, theme } of views) {
  await context.addCookies([{ name: 'theme', value: theme ?? 'day', url: stand.url }]);
  await page.goto(stand.url + path);
  await page.waitForSelector(ready);
  await page.waitForTimeout(700);
  await page.screenshot({ path: join(root, 'docs/screenshots', `${name}.png`) });
}
await browser.close();
await stand.close();
