import adapter from '@sveltejs/adapter-node';

/** @type {import('@sveltejs/kit').Config} */
export default {
  kit: {
    adapter: adapter({ precompress: process.env.HEKTO_COMPRESS !== 'no' }),
    // The service worker answers every address with the same shell, so assets need absolute paths.
    paths: { relative: false },
    alias: { $core: 'src/core' },
    typescript: {
      config: (config) => {
        config.include.push('../cli/**/*.ts', '../demo/**/*.ts', '../tests/**/*.ts', '../scripts/**/*.ts');
        return config;
      },
    },
    csp: {
      // Hashes rather than nonces, so that a page kept by the service worker stays valid.
      mode: 'hash',
      directives: {
        'default-src': ['self'],
        'script-src': ['self'],
        'style-src': ['self', 'unsafe-inline'],
        'img-src': ['self', 'data:', 'blob:'],
        'font-src': ['self'],
        'connect-src': ['self'],
        'worker-src': ['self'],
        'object-src': ['none'],
        'base-uri': ['none'],
        'form-action': ['self'],
        'frame-ancestors': ['none'],
      },
    },
  },
};
