'use client';
/** What each step of a plan sets, in an open form, saved in the order of the plan with what to check. */
import { useState } from 'react';
import type { JudgedPlan } from '../../../../core/analysis/plans/judge';
import type { Plan } from '../../../../core/analysis/plans/plan';
import { FORMS, LEFT_OUT, leftOutText } from '../../../../core/exchange/settings/forms';
import { stepFiles } from '../../../../core/exchange/settings/stepFiles';
import { templateKey, templatesOf } from '../../../../core/exchange/templates/atHand';
import { fail as failWith } from '../../../../core/base/result';
import { fileStemOf } from '../../../../core/model/derive/write';
import type { Design } from '../../../../core/model/document';
import { useLibrary } from '../../../state/library';
import { saveAll } from '../../../ui/saveAll';
import { Select } from '../../../ui/Select';
import { TextButton } from '../../../ui/TextButton';

interface Props {
  readonly design: Design;
  readonly plan: Plan;
  readonly judged: JudgedPlan | null;
  readonly label: string;
  readonly fail: (trouble: string | null) => void;
}

export function SaveSteps({ design, plan, judged, label, fail }: Props) {
  const [key, setKey] = useState(FORMS[0]!.key);
  const { templates: library } = useLibrary();
  const templates = templatesOf(design, library).map(({ id, name }) => [templateKey(id), name] as const);
  const save = async () => {
    // What runs templates is large, and few need it here.
    const form =
      FORMS.find((each) => each.key === key) ??
      (await import('../../../../core/exchange/templates/form'))
        .formsOf(design, library)
        .find((each) => each.key === key)!;
    const written = writtenSteps(design, plan, judged, form, label);
    if (!written.ok) return fail(written.error);
    fail(null);
    const leftOut = leftOutText(written.value.leftOut);
    saveAll(`${fileStemOf(design)}-steps-${key.replace(':', '-')}`, [
      ...written.value.files,
      ...(leftOut === '' ? [] : [{ name: LEFT_OUT, text: leftOut }]),
    ]);
  };
  return (
    <>
      <TextButton onClick={() => void save()}>save the settings</TextButton>
      <label>
        as{' '}
        <Select
          label="Form of the settings"
          value={key}
          options={[...FORMS.map((form) => [form.key, form.name] as const), ...templates]}
          choose={setKey}
        />
      </label>
    </>
  );
}

/** A template that cannot be done says so, as plans that cannot be written do. */
function writtenSteps(...of: Parameters<typeof stepFiles>): ReturnType<typeof stepFiles> {
  try {
    return stepFiles(...of);
  } catch (error) {
    if (error instanceof Error && error.name === 'TemplateError') return failWith(error.message);
    throw error;
  }
}
