'use client';
/** The theme around everything, with the style nonce that the content security policy asks for. */
import { AppRouterCacheProvider } from '@mui/material-nextjs/v16-appRouter';
import CssBaseline from '@mui/material/CssBaseline';
import { ThemeProvider } from '@mui/material/styles';
import type { ReactNode } from 'react';
import { Nonce } from './nonce';
import { theme } from './theme';

export function ThemeRoom({ nonce, children }: { readonly nonce?: string | undefined; readonly children: ReactNode }) {
  return (
    <AppRouterCacheProvider options={{ enableCssLayer: true, ...(nonce ? { nonce } : {}) }}>
      <ThemeProvider theme={theme} defaultMode="system">
        <CssBaseline enableColorScheme={false} />
        <Nonce value={nonce}>{children}</Nonce>
      </ThemeProvider>
    </AppRouterCacheProvider>
  );
}
