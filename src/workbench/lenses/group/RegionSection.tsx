'use client';
/** The MST configuration of the selected switches: whose settings they have, and those settings themselves. */
import { isMultiple } from '../../../core/model/document';
import Button from '@mui/material/Button';
import type { Command } from '../../../core/edit/commands';
import { namesOf } from '../../../core/model/derive/names';
import type { RegionId } from '../../../core/model/ids';
import {
  regionName,
  regionRevision,
  regionSchema,
  type Design,
  type RegionSettings,
  type Switch,
} from '../../../core/model/document';
import { vlanSet } from '../../../core/model/vlanSet';
import { freshRegion } from '../../../core/analysis/regions/asDialect';
import { misconfigurationsOf } from '../../../core/analysis/regions/regions';
import { fail, ok, type Result } from '../../../core/base/result';
import { TextButton } from '../../ui/TextButton';
import { ChoiceSetting, TextSetting, type FieldFault } from '../../ui/fields';
import styles from '../../ui/panel.module.css';
import * as read from '../../ui/read';
import { choiceOf } from '../../ui/several';
import { useFollowing, useWorkbench } from '../../state/context';
import { counted } from '../../../core/base/words';
import { useRegions } from '../../state/useRegions';

const OWN = ' own';
const NEW = ' new';

/** Reads a region's name: at most 32 octets. */
export function readRegionName(text: string): Result<string, FieldFault> {
  const parsed = regionName.safeParse(text);
  return parsed.success
    ? ok(parsed.data)
    : fail({ message: `A region's name has ${parsed.error.issues[0]?.message ?? 'at most 32 octets'}.` });
}

export function readRevision(text: string): Result<number, FieldFault> {
  const value = Number(text.replace(/\s/g, '') || NaN);
  return regionRevision.safeParse(value).success ? ok(value) : fail({ message: 'A revision is 0 to 65535.' });
}

export function RegionSection({ switches }: { readonly switches: readonly Switch[] }) {
  const design = useWorkbench((state) => state.design);
  const act = useWorkbench((state) => state.act);
  const multiple = switches.every((sw) => isMultiple(sw));
  const chosen = choiceOf(
    switches.map((sw) => (isMultiple(sw) ? ((sw.region as string | undefined) ?? OWN) : ' none')),
    [
      ...(multiple ? [] : [[' none', 'None: no MSTP'] as const]),
      ...design.regions.map((region) => [region.id as string, namesOf(design).region(region.id)] as const),
      [OWN, 'None: a region of its own'] as const,
      [NEW, 'New settings…'] as const,
    ],
  );
  const region = design.regions.find((each) => switches.every((sw) => isMultiple(sw) && sw.region === each.id));
  const join = (to: string): void => {
    if (to === ' none') return;
    const made = to === NEW ? freshRegion(design, region?.instances ?? []) : null;
    const id = made ? made.id : to === OWN ? null : (to as RegionId);
    act(
      ...(made ? [{ do: 'add-region' as const, region: made }] : []),
      ...switches.map((sw): Command => ({
        do: 'set-switch',
        switch: sw.id,
        ...(isMultiple(sw) ? {} : { dialect: 'mstp' as const }),
        region: id,
      })),
    );
  };
  return (
    <section className={styles.section} aria-label="Region">
      <h3>Region</h3>
      <ChoiceSetting
        label="Settings"
        {...chosen}
        commit={join}
        note={switches.length > 1 ? 'For all selected switches; those that run another mode then run MSTP.' : undefined}
      />
      <SlipNote design={design} switches={switches} />
      {region && <RegionFields region={region} switches={switches} />}
    </section>
  );
}

/** What is likely wrong with a switch's settings, and the click that mends it. */
function SlipNote({ design, switches }: { readonly design: Design; readonly switches: readonly Switch[] }) {
  const regions = useRegions();
  const solution = useFollowing((state) => state.solution);
  const act = useWorkbench((state) => state.act);
  const slips = solution
    ? misconfigurationsOf(solution.network, regions).filter((slip) => switches.some((sw) => sw.id === slip.switch))
    : [];
  return slips.map((slip) => (
    <p key={slip.switch} className={styles.fault}>
      {slip.text}.{' '}
      <TextButton does="edit" onClick={() => act({ do: 'set-switch', switch: slip.switch, region: slip.settings })}>
        make equal to {namesOf(design).region(slip.settings)}
      </TextButton>
    </p>
  ));
}

function RegionFields({ region, switches }: { readonly region: RegionSettings; readonly switches: readonly Switch[] }) {
  const design = useWorkbench((state) => state.design);
  const act = useWorkbench((state) => state.act);
  const users = design.switches.filter((sw) => isMultiple(sw) && sw.region === region.id);
  const others = users.filter((sw) => !switches.includes(sw)).length;
  const split = () => {
    let n = 2;
    while (design.regions.some((each) => each.id === (`${region.id}-${n}` as RegionId))) n += 1;
    const copy = regionSchema.parse({ ...region, id: `${region.id}-${n}` });
    act(
      { do: 'add-region', region: copy },
      ...switches.map((sw): Command => ({ do: 'set-switch', switch: sw.id, region: copy.id })),
    );
  };
  return (
    <>
      <TextSetting
        label="Name"
        value={region.name}
        placeholder="none"
        read={readRegionName}
        commit={(name) => act({ do: 'set-region', region: region.id, name })}
      />
      <TextSetting
        label="Revision"
        value={String(region.revision)}
        read={readRevision}
        commit={(revision) => act({ do: 'set-region', region: region.id, revision })}
      />
      {region.instances.map(({ id, vlans }) => (
        <TextSetting
          key={id}
          label={`Instance ${id}`}
          value={vlans}
          placeholder="no VLAN"
          read={read.vlans}
          commit={(text) => {
            const taken = region.instances.find(
              (other) => other.id !== id && !vlanSet(other.vlans).intersect(vlanSet(text)).isEmpty,
            );
            if (taken)
              return `VLAN ${vlanSet(taken.vlans).intersect(vlanSet(text)).format()} is in instance ${taken.id} already: each VLAN is in one instance.`;
            return act({
              do: 'set-region',
              region: region.id,
              instances: region.instances.map((each) => (each.id === id ? { id, vlans: text } : each)),
            });
          }}
        />
      ))}
      <p className={styles.hint}>
        {others === 0
          ? 'Nobody else has these settings.'
          : `${counted(others, 'other switch has', 'other switches have')} these settings, and changes with ${switches.length === 1 ? 'this one' : 'these'}.`}
      </p>
      {others > 0 && (
        <div className={styles.buttons}>
          <Button variant="outlined" onClick={split}>
            Separate settings for {switches.length === 1 ? 'this switch' : 'these switches'}
          </Button>
        </div>
      )}
    </>
  );
}
