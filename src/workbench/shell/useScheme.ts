'use client';
/** The scheme that the page is drawn in, and the way to the other one. */
import { useColorScheme } from '@mui/material/styles';

export function useScheme(): { readonly dark: boolean; readonly toggle: () => void } {
  const { mode, systemMode, setMode } = useColorScheme();
  const dark = (mode === 'system' ? systemMode : mode) === 'dark';
  return { dark, toggle: () => setMode(dark ? 'light' : 'dark') };
}
