import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import react from '@vitejs/plugin-react';
import { defaultClientConditions, defineConfig, type Plugin } from 'vite';

/** Writes the service worker with the list of all that was built: it is another one when any of that is. */
function serviceWorker(): Plugin {
  return {
    name: 'service-worker',
    apply: 'build',
    generateBundle(_, bundle) {
      const source = readFileSync(path.join(import.meta.dirname, 'service-worker.js'), 'utf8');
      const extra = readdirSync(path.join(import.meta.dirname, 'public'));
      const files = [
        ...Object.keys(bundle).filter((file) => file !== 'index.html' && !file.endsWith('.woff')),
        ...extra,
      ]
        .sort()
        .map((file) => `/${file}`);
      const page = bundle['index.html'];
      const version = createHash('sha256')
        .update(JSON.stringify([files, source, page?.type === 'asset' ? String(page.source) : '']))
        .digest('hex')
        .slice(0, 16);
      this.emitFile({
        type: 'asset',
        fileName: 'service-worker.js',
        source: `const files = ${JSON.stringify(files)};\nconst version = '${version}';\n${source}`,
      });
    },
  };
}

export default defineConfig({
  plugins: [react(), serviceWorker()],
  resolve: { conditions: ['@yunta/source', ...defaultClientConditions] },
  worker: { format: 'es' },
  build: { chunkSizeWarningLimit: 1500 },
});
