'use client';
/** Light or dark; until someone chooses, as the system has it. */
import { useColorScheme } from '@mui/material/styles';
import { TextButton } from '../ui/TextButton';
import { useMounted } from '../ui/useMounted';

export function SchemeButton() {
  const { mode, systemMode, setMode } = useColorScheme();
  const mounted = useMounted(); // the server cannot know the scheme
  if (!mounted) return null;
  const dark = (mode === 'system' ? systemMode : mode) === 'dark';
  return (
    <TextButton
      does="plain"
      onClick={() => setMode(dark ? 'light' : 'dark')}
      title={dark ? 'switch to the light scheme' : 'switch to the dark scheme'}
    >
      {dark ? 'Light' : 'Dark'}
    </TextButton>
  );
}
