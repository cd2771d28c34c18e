'use client';
/** The library of templates on the server, as this page knows it. */
import { useEffect } from 'react';
import { create } from 'zustand';
import type { Template } from '../../core/model/document';
import { api, type ApiFailure } from './api';

interface Library {
  readonly templates: readonly Template[];
  /** Why it is not known, or what could not be done last; null where nothing is wrong. */
  readonly trouble: string | null;
  load(): Promise<void>;
  /** Puts a template in, in place of what has its id; whether it is in. */
  keep(template: Template): Promise<boolean>;
  forget(id: string): Promise<boolean>;
}

const useStore = create<Library>((set, get) => {
  const failed = ({ message }: ApiFailure): false => {
    set({ trouble: `The library: ${message}` });
    return false;
  };
  const load = async (): Promise<boolean> => {
    const answer = await api.templates();
    if (!answer.ok) return failed(answer.error);
    set({ templates: answer.value.templates, trouble: null });
    return true;
  };
  return {
    templates: [],
    trouble: null,
    load: async () => void (await load()),
    async keep(template) {
      const answer = await api.keepTemplate(template);
      return answer.ok ? load() : failed(answer.error);
    },
    async forget(id) {
      const answer = await api.forgetTemplate(id);
      set({ templates: get().templates.filter((each) => each.id !== id || !answer.ok) });
      return answer.ok || failed(answer.error);
    },
  };
});

/** Asked for anew whenever something that shows it comes up. */
export function useLibrary(): Library {
  const library = useStore();
  const { load } = library;
  useEffect(() => void load(), [load]);
  return library;
}
