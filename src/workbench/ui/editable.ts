'use client';
/** Whether what is shown may be changed: fields and buttons that write are closed, and look it, where an earlier state is looked at. */
import { createContext, useContext } from 'react';

export const Editable = createContext(true);

export const useEditable = (): boolean => useContext(Editable);
