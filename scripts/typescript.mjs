// Lets node run TypeScript: `node --import ./scripts/typescript.mjs FILE.ts`. esbuild takes the types off and no more: functions
// that are made to keep their names, as the usual loaders make them, cost the reasoning a quarter of its speed.
import { readFileSync } from 'node:fs';
import { register } from 'node:module';
import { fileURLToPath } from 'node:url';
import { transformSync } from 'esbuild';

/** Node loads this file once more where it asks for what is exported below. */
const asHooks = '?hooks';
if (!import.meta.url.endsWith(asHooks)) register(import.meta.url + asHooks);

export function load(url, context, next) {
  if (!url.startsWith('file:') || !url.endsWith('.ts')) return next(url, context);
  const file = fileURLToPath(url);
  const { code } = transformSync(readFileSync(file, 'utf8'), {
    loader: 'ts',
    target: 'node20',
    sourcefile: file,
    sourcemap: 'inline',
  });
  return { format: 'module', source: code, shortCircuit: true };
}
