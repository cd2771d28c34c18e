/** Bundles the workbench for a page that is one file: its script, with its workers inside, and its style sheet. */
import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { pathToFileURL } from 'node:url';

const STARTS = /new Worker\(\s*new URL\('([^']+)', import\.meta\.url\),/g;
const INLINE = 'worker-text:';

const settings = {
  bundle: true,
  platform: 'browser',
  format: 'iife',
  target: 'es2022',
  minify: true,
  jsx: 'automatic',
  charset: 'utf8',
  loader: { '.woff2': 'dataurl', '.woff': 'empty' },
  define: { 'process.env.NODE_ENV': '"production"', 'process.env.NEXT_PUBLIC_KNOT_PATH_FILE': '"1"' },
  logLevel: 'warning',
  // What is composed of comes first in the style sheet, as in the workbench.
  logOverride: { 'undefined-composes-from': 'silent' },
  legalComments: 'none',
};

/** From a file no worker can be loaded: its text is in the page, and it starts from that. */
const workersInside = (build) => ({
  name: 'workers inside',
  setup(page) {
    page.onLoad({ filter: /src[\\/](workbench|workers)[\\/].*\.ts$/, namespace: 'file' }, async ({ path: file }) => {
      const text = await readFile(file, 'utf8');
      if (!text.includes('new Worker(')) return null;
      const imports = [];
      const contents = text
        .replaceAll(STARTS, (_, worker) => {
          const at = path.resolve(path.dirname(file), worker);
          imports.push(`import text${imports.length} from ${JSON.stringify(INLINE + at)};`);
          return `new Worker(URL.createObjectURL(new Blob([text${imports.length - 1}], { type: 'text/javascript' })),`;
        })
        .replaceAll("type: 'module'", "type: 'classic'");
      return { contents: `${imports.join('')}${contents}`, loader: 'ts', resolveDir: path.dirname(file) };
    });
    page.onResolve({ filter: new RegExp(`^${INLINE}`) }, ({ path: name }) => ({
      path: name.slice(INLINE.length),
      namespace: INLINE,
    }));
    page.onLoad({ filter: /./, namespace: INLINE }, async ({ path: file }) => {
      const made = await build({ ...settings, entryPoints: [file], write: false, plugins: [workersInside(build)] });
      return { contents: made.outputFiles[0].text, loader: 'text' };
    });
    // Nothing is handed over where there is no server.
    page.onResolve({ filter: /^\.\/handOver$/ }, ({ resolveDir }) => ({
      path: path.resolve(resolveDir, '../file/noHandOver.ts'),
    }));
  },
});

export async function buildPage() {
  const { build } = await import('esbuild');
  await build({
    ...settings,
    entryPoints: { page: 'src/workbench/file/main.tsx' },
    outdir: 'dist/page',
    plugins: [workersInside(build)],
  });
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) await buildPage();
