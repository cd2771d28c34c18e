'use client';
/** Where a network is read from: addresses, networks of neighbours, by what name of credentials, at which port. */
import { create } from 'zustand';
import { sourceSchema, type Source, type WatchView } from '../../../contract/observe';
import { fail, ok, type Result } from '../../../core/base/result';
import { useWorkbench } from '../../state/context';
import { Select } from '../../ui/Select';
import room from './observe.module.css';
import { TypedField } from './TypedField';

/** As it is typed. */
export interface TypedSource {
  readonly addresses: string;
  readonly within: string;
  readonly credentials: string;
  readonly port: string;
}

const typed = ({ addresses, within, credentials, port }: Source): TypedSource => ({
  ...{ addresses: addresses.join(', '), within: within.join(', '), credentials, port: String(port) },
});

const useTyped = create<{ readonly of: ReadonlyMap<string, TypedSource> }>(() => ({ of: new Map() }));

/** As it was typed last for this design; before, as the watch has it. */
export function useSource(view: WatchView | null): readonly [TypedSource, (source: TypedSource) => void] {
  const id = useWorkbench((state) => state.id);
  const own = useTyped((state) => state.of.get(id));
  const known = view?.settings?.source;
  const first = { addresses: '', within: '', credentials: view?.credentials[0] ?? '', port: '161' };
  const set = (source: TypedSource): void => useTyped.setState(({ of }) => ({ of: new Map(of).set(id, source) }));
  return [own ?? (known ? typed(known) : first), set];
}

const listed = (text: string): string[] => text.split(/[\s,]+/).filter((each) => each !== '');

/** The error names the field. */
export function sourceIn({ addresses, within, credentials, port }: TypedSource): Result<Source, string> {
  const read = sourceSchema.safeParse({
    ...{ addresses: listed(addresses), within: listed(within), credentials, port: Number(port) },
  });
  if (read.success) return ok(read.data);
  const [field] = read.error.issues[0]!.path;
  const wanted = {
    addresses: 'Addresses: wanted are addresses or names of switches, such as 192.0.2.1.',
    within: 'Neighbours in: wanted are networks such as 192.0.2.0/24.',
    credentials: 'Asked by: wanted is a name of credentials that the server has.',
    port: 'Port: wanted is a number from 1 to 65535.',
  };
  return fail(wanted[field as keyof typeof wanted]);
}

interface Props {
  readonly source: TypedSource;
  readonly change: (source: TypedSource) => void;
  readonly names: readonly string[];
}

export function SourceFields({ source, change, names }: Props) {
  const field = (key: 'addresses' | 'within' | 'port', label: string, hint: string, width: string) => (
    <TypedField
      {...{ label, hint, width }}
      value={source[key]}
      change={(value) => change({ ...source, [key]: value })}
    />
  );
  return (
    <>
      {field('addresses', 'Addresses', '192.0.2.1', '13em')}
      {field('within', 'Neighbours in', '192.0.2.0/24', '10em')}
      <label className={room.field}>
        Asked by
        <Select
          value={source.credentials}
          options={names.length > 0 ? names.map((name) => [name, name] as const) : [['', 'no credentials']]}
          choose={(credentials) => change({ ...source, credentials })}
        />
      </label>
      {field('port', 'Port', '161', '4.5em')}
    </>
  );
}
