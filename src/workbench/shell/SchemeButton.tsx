'use client';
/** Light or dark; until someone chooses, as the system has it. */
import { useScheme } from './useScheme';
import { TextButton } from '../ui/TextButton';
import { useMounted } from '../ui/useMounted';

export function SchemeButton() {
  const { dark, toggle } = useScheme();
  const mounted = useMounted(); // the server cannot know the scheme
  if (!mounted) return null;
  return (
    <TextButton does="plain" onClick={toggle} title={dark ? 'switch to the light scheme' : 'switch to the dark scheme'}>
      {dark ? 'Light' : 'Dark'}
    </TextButton>
  );
}
