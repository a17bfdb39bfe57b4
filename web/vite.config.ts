import { fileURLToPath } from 'node:url';
import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vite';

// The barrel of adapters pulls a dozen other validators into every bundle: take yup's alone.
const yupAdapter = fileURLToPath(import.meta.resolve('sveltekit-superforms/adapters')).replace(/index\.js$/, 'yup.js');

export default defineConfig({
  plugins: [tailwindcss(), sveltekit()],
  resolve: { alias: [{ find: /^sveltekit-superforms\/adapters$/, replacement: yupAdapter }] },
  server: { host: '127.0.0.1', fs: { allow: ['../core'] } },
  preview: { host: '127.0.0.1' },
});
