'use client';
/** What each step of a plan sets, in an open form, saved in the order of the plan with what to check. */
import { useState } from 'react';
import type { JudgedPlan } from '../../../../core/analysis/plans/judge';
import type { Plan } from '../../../../core/analysis/plans/plan';
import { FORMS, LEFT_OUT, leftOutText } from '../../../../core/exchange/settings/forms';
import { stepFiles } from '../../../../core/exchange/settings/stepFiles';
import { fileStemOf } from '../../../../core/model/derive/write';
import type { Design } from '../../../../core/model/document';
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
  const save = () => {
    const form = FORMS.find((each) => each.key === key)!;
    const written = stepFiles(design, plan, judged, form, label);
    if (!written.ok) return fail(written.error);
    fail(null);
    const leftOut = leftOutText(written.value.leftOut);
    saveAll(`${fileStemOf(design)}-steps-${key}`, [
      ...written.value.files,
      ...(leftOut === '' ? [] : [{ name: LEFT_OUT, text: leftOut }]),
    ]);
  };
  return (
    <>
      <TextButton onClick={save}>save the settings</TextButton>
      <label>
        as{' '}
        <Select
          label="Form of the settings"
          value={key}
          options={FORMS.map((form) => [form.key, form.name])}
          choose={setKey}
        />
      </label>
    </>
  );
}
