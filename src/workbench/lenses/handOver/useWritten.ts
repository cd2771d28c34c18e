'use client';
/** What is written in a form: of every switch, whole or from an earlier revision on, or the design in one file. */
import { useEffect, useMemo, useState } from 'react';
import { settingsFiles, type NamedFile, type SwitchFiles } from '../../../core/exchange/settings/forms';
import { formsOf, TemplateError } from '../../../core/exchange/templates/form';
import { WHOLES, wholeFile } from '../../../core/exchange/wholes';
import type { Design, Template } from '../../../core/model/document';
import { useWorkbench } from '../../state/context';
import { revisionAt } from '../../state/revisions';

export interface Written {
  /** Those at which something is written. */
  readonly switches: readonly SwitchFiles[];
  /** Of forms that hold the design in one file. */
  readonly whole: NamedFile | null;
  /** Why a template cannot be done. */
  readonly fault: string | null;
}

export function useWritten(design: Design, library: readonly Template[], key: string, from: Design | null): Written {
  return useMemo(() => {
    const form = formsOf(design, library).find((each) => each.key === key);
    const whole = WHOLES.find((each) => each.key === key);
    const nothing: Written = { switches: [], whole: null, fault: null };
    if (whole) return { ...nothing, whole: wholeFile(design, whole) };
    if (!form) return nothing;
    try {
      return { ...nothing, switches: settingsFiles(design, form, { from }) };
    } catch (error) {
      if (error instanceof TemplateError) return { ...nothing, fault: error.message };
      throw error;
    }
  }, [design, library, key, from]);
}

/** The design of an earlier revision, once it is there; null where none is asked for. */
export function useRevision(number: number | null): {
  readonly design: Design | null;
  readonly trouble: string | null;
} {
  const id = useWorkbench((state) => state.id);
  const [found, setFound] = useState<{ of: number; design: Design | null; trouble: string | null } | null>(null);
  useEffect(() => {
    let gone = false;
    if (number === null) return;
    void revisionAt(id, number, '').then((there) => {
      if (gone) return;
      setFound(
        there.ok
          ? { of: number, design: there.value.design, trouble: null }
          : { of: number, design: null, trouble: there.error },
      );
    });
    return () => {
      gone = true;
    };
  }, [id, number]);
  return found && found.of === number ? found : { design: null, trouble: null };
}
