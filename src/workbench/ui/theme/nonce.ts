'use client';
/** The style nonce of this page, for components that write style elements of their own. */
import { createContext, useContext } from 'react';

export const Nonce = createContext<string | undefined>(undefined);
export const useNonce = (): string | undefined => useContext(Nonce);
