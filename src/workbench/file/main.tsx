'use client';
/** The workbench as one file: the design is in the page, there is no server, nothing can be changed. */
import '@fontsource-variable/atkinson-hyperlegible-mono/wght.css';
import '@fontsource-variable/atkinson-hyperlegible-next/wght.css';
import createCache from '@emotion/cache';
import { CacheProvider } from '@emotion/react';
import CssBaseline from '@mui/material/CssBaseline';
import InitColorSchemeScript from '@mui/material/InitColorSchemeScript';
import { ThemeProvider } from '@mui/material/styles';
import { createRoot } from 'react-dom/client';
import { readDesign } from '../../core/model/read';
import { problemText } from '../../core/model/problem';
import { WorkbenchPage } from '../shell/WorkbenchPage';
import { theme } from '../ui/theme/theme';
import '../ui/theme/tokens.css';

const held = document.getElementById('design')!;
const design = readDesign(JSON.parse(held.textContent));
const { revision = '0' } = held.dataset;
const room = document.getElementById('room')!;
// Style sheets of components stand in a layer below ours, as they do in the workbench.
const cache = createCache({ key: 'css' });
const layered = cache.insert;
cache.insert = (selector, serialized, sheet, shouldCache) =>
  layered(
    selector,
    serialized.styles.includes('@layer') ? serialized : { ...serialized, styles: `@layer mui {${serialized.styles}}` },
    sheet,
    shouldCache,
  );

if (design.ok)
  createRoot(room).render(
    <CacheProvider value={cache}>
      <InitColorSchemeScript attribute="class" />
      <ThemeProvider theme={theme} defaultMode="system">
        <CssBaseline enableColorScheme={false} />
        <WorkbenchPage
          open={{
            id: 'file',
            readOnly: true,
            design: design.value,
            revision: Number(revision),
            damage: null,
            undo: [],
            redo: [],
          }}
        />
      </ThemeProvider>
    </CacheProvider>,
  );
else room.textContent = `This design cannot be read: ${design.error.slice(0, 3).map(problemText).join('; ')}`;
