import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vite';

/** Component libraries whose modules do nothing but define: what is not used of them is left out. */
const DEFINE_ONLY =
  /node_modules\/(flowbite-svelte|flowbite-svelte-icons|tailwind-variants|tailwind-merge)\//;

export default defineConfig({
  plugins: [tailwindcss(), sveltekit()],
  worker: { format: 'es' },
  build: {
    target: 'es2022',
    rolldownOptions: { treeshake: { moduleSideEffects: (id) => !DEFINE_ONLY.test(id) } },
  },
});
