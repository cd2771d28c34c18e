'use client';
/** The network that was read as a design of its own. */
import { useState } from 'react';
import { drawn } from '../../../core/exchange/observation/draw/draw';
import type { Observation } from '../../../core/exchange/observation/observation';
import { leanDesign } from '../../../core/model/derive/write';
import { api } from '../../state/api';
import { HAS_SERVER } from '../../state/reach';
import { TextButton } from '../../ui/TextButton';

interface Props {
  readonly observation: Observation;
  readonly refused: (why: string | null) => void;
}

export function DrawIt({ observation, refused }: Props) {
  const [busy, setBusy] = useState(false);
  if (!HAS_SERVER) return null;
  const draw = async () => {
    setBusy(true);
    const made = drawn(observation);
    const created = made.ok ? await api.create({ do: 'import', document: leanDesign(made.value.design) }) : null;
    if (created?.ok) return window.location.assign(`/designs/${encodeURIComponent(created.value.id)}`);
    setBusy(false);
    refused(made.ok ? (created?.ok === false ? created.error.message : null) : made.error);
  };
  return (
    <TextButton
      disabled={busy}
      title="the whole network, laid out, with what is in doubt in its notes"
      onClick={() => void draw()}
    >
      draw it as a new design
    </TextButton>
  );
}
