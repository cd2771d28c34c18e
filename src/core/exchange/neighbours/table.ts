/** A table with at least the columns switch, port and neighbour. */
import { fail, ok, type Result } from '../../base/result';
import type { Design, LinkEnd, Observed } from '../../model/document';
import { readCsv, writeCsv, type Table } from '../csv';
import { observedOf, type NeighbourFormat, type ObservedImport } from './format';

/** The columns of a table of neighbours; headings are read in either case, with or without spaces. */
const COLUMNS = {
  switch: ['switch', 'localswitch', 'localdevice', 'localsystem', 'system', 'from'],
  port: ['port', 'localport', 'localinterface', 'interface', 'fromport'],
  device: [
    'neighbour',
    'neighbor',
    'neighbourswitch',
    'neighborswitch',
    'remotesystem',
    'remoteswitch',
    'remotedevice',
    'device',
    'to',
    'pluggedinto',
  ],
  devicePort: ['neighbourport', 'neighborport', 'remoteport', 'remoteinterface', 'deviceport', 'toport'],
  mac: ['neighbourmac', 'neighbormac', 'remotemac', 'mac', 'chassisid', 'macaddress'],
  kind: ['kind', 'type'],
} as const;
const NEEDED = { switch: 'switch', port: 'port', device: 'neighbour' } as const;

/** Reads a table; the error is a sentence. */
export function readObservedCsv(text: string): Result<ObservedImport, string> {
  const table = readCsv(text);
  if (!table.ok) return table;
  const key = (heading: string): string => heading.toLowerCase().replace(/[^a-z]/g, '');
  const columnOf = (name: keyof typeof COLUMNS): string | undefined =>
    table.value.columns.find((column) => COLUMNS[name].some((each) => each === key(column)));
  const columns = Object.fromEntries(
    (Object.keys(COLUMNS) as (keyof typeof COLUMNS)[]).map((name) => [name, columnOf(name)]),
  );
  const missing = (Object.keys(NEEDED) as (keyof typeof NEEDED)[]).filter((name) => columns[name] === undefined);
  if (missing.length > 0) {
    const found = table.value.columns
      .map((column) => `"${column.slice(0, 40)}"`)
      .slice(0, 12)
      .join(', ');
    return fail(
      `The column ${missing.map((name) => `"${NEEDED[name]}"`).join(' and the column ')} is missing. The heading has ${found}. Wanted: switch, port, neighbour, and where known neighbour port, neighbour mac, kind.`,
    );
  }
  return ok(rowsOf(table.value, columns));
}

function rowsOf({ rows }: Table, columns: Readonly<Record<string, string | undefined>>): ObservedImport {
  const observed: Observed[] = [];
  const skipped: string[] = [];
  for (const { line, values } of rows) {
    const at = (name: string): string => (columns[name] === undefined ? '' : (values[columns[name]] ?? ''));
    if (at('device') === '' && at('devicePort') === '') continue; // nothing plugged in
    const row = observedOf({
      switch: at('switch'),
      port: at('port'),
      device: at('device'),
      devicePort: at('devicePort'),
      mac: at('mac'),
      kind: at('kind'),
    });
    if (row.ok) observed.push(row.value);
    else skipped.push(`Line ${line}: ${row.error}`);
  }
  return { observed, skipped };
}

export const table: NeighbourFormat = {
  name: 'a CSV file with the columns switch, port, neighbour, neighbour port',
  detects: () => true,
  namesSwitch: true,
  read: readObservedCsv,
};

/** The designed table as CSV, in the columns that the import reads. */
export function designedCsv(design: Design): string {
  const names = new Map(design.switches.map((sw) => [sw.id, sw.name ?? sw.id]));
  const macs = new Map(design.switches.map((sw) => [sw.id, sw.mac]));
  const far = new Map<string, readonly [device: string, port: string, mac: string, kind: string]>();
  const key = (end: LinkEnd) => `${end.switch}\n${end.port}`;
  for (const { a, b } of design.links) {
    for (const [near, other] of [
      [a, b],
      [b, a],
    ] as const)
      far.set(key(near), [names.get(other.switch) ?? other.switch, other.port, macs.get(other.switch) ?? '', 'switch']);
  }
  for (const host of design.hosts)
    for (const end of host.attach) far.set(key(end), [host.name ?? host.id, '', host.mac, 'host']);
  const rows = design.switches.flatMap((sw) =>
    sw.ports.map((port) => [
      sw.name ?? sw.id,
      port.id,
      ...(far.get(key({ switch: sw.id, port: port.id })) ?? ['', '', '', '']),
    ]),
  );
  return writeCsv(['switch', 'port', 'neighbour', 'neighbour port', 'neighbour mac', 'kind'], rows);
}
