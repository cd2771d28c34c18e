'use client';
/** False on the server and while its markup is taken over, true from then on. */
import { useSyncExternalStore } from 'react';

const never = () => () => undefined;

export const useMounted = (): boolean =>
  useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
