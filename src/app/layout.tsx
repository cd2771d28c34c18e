import '@fontsource-variable/atkinson-hyperlegible-mono';
import '@fontsource-variable/atkinson-hyperlegible-next';
import InitColorSchemeScript from '@mui/material/InitColorSchemeScript';
import type { Metadata } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import { ThemeRoom } from '../workbench/ui/theme/ThemeRoom';
import '../workbench/ui/theme/tokens.css';

export const metadata: Metadata = {
  title: { default: 'Knot Path', template: '%s · Knot Path' },
  description: 'Design redundant switched networks and know how they will behave.',
};

export default async function RootLayout({ children }: { readonly children: ReactNode }) {
  const nonce = (await headers()).get('x-nonce') ?? undefined;
  return (
    <html lang="en" suppressHydrationWarning>
      <body>
        <InitColorSchemeScript attribute="class" {...(nonce ? { nonce } : {})} />
        <ThemeRoom nonce={nonce}>{children}</ThemeRoom>
      </body>
    </html>
  );
}
