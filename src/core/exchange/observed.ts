/** Neighbours as switches report them: from a table, or from what the open-source lldpd prints (`lldpctl -f json`). */
import { macAddress } from '../model/legal';
import { isTitle, type Design, type Observed } from '../model/document';
import type { LinkEnd } from '../model/document';
import { fail, ok, type Result } from '../base/result';
import { z } from '../base/zod';
import { parseJson } from '../base/json';
import { MOST, readCsv, writeCsv, type Table } from './csv';

/** What an import found, and the lines that it could not use. */
export interface ObservedImport {
  readonly observed: readonly Observed[];
  readonly skipped: readonly string[];
}

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

/** Reads a table with at least the columns switch, port and neighbour. */
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

function observedOf(raw: {
  switch: string;
  port: string;
  device: string;
  devicePort: string;
  mac: string;
  kind: string;
}): Result<Observed, string> {
  for (const [name, value] of [
    ['switch', raw.switch],
    ['port', raw.port],
    ['neighbour', raw.device],
  ] as const) {
    if (!isTitle(value)) return fail(value === '' ? `no ${name}` : `the ${name} is not a name of one line`);
  }
  const mac = raw.mac === '' ? null : macAddress.safeParse(raw.mac.replaceAll('-', ':'));
  const kind = /switch|bridge/i.test(raw.kind)
    ? ('switch' as const)
    : /host|station|server/i.test(raw.kind)
      ? ('host' as const)
      : null;
  return ok({
    switch: raw.switch,
    port: raw.port,
    device: raw.device,
    ...(isTitle(raw.devicePort) ? { devicePort: raw.devicePort } : {}),
    ...(mac?.success ? { mac: mac.data } : {}),
    ...(kind ? { kind } : {}),
  });
}

// The shape that `lldpctl -f json` prints: single items where there is one, lists where there are several.
const idSchema = z.object({ type: z.string(), value: z.string() });
const chassisSchema = z.looseObject({
  id: idSchema.optional(),
  name: z.string().optional(),
  capability: z.unknown().optional(),
});
const seenSchema = z.looseObject({
  chassis: z.record(z.string(), z.unknown()).optional(),
  port: z.looseObject({ id: idSchema.optional(), descr: z.string().optional() }).optional(),
});
const lldpSchema = z.object({ lldp: z.looseObject({ interface: z.unknown().optional() }) });

/** Reads what lldpd saw on one switch, which its output does not name. */
export function readLldp(text: string, seenOn: string): Result<ObservedImport, string> {
  const json = parseJson(text);
  if (!json.ok) return fail(`This is not JSON that can be read: it is ${json.error}.`);
  const whole = lldpSchema.safeParse(json.value);
  if (!whole.success)
    return fail('This JSON is not what lldpctl -f json prints: it has no "lldp" with an "interface" in it.');
  const list = whole.data.lldp.interface;
  const items = (Array.isArray(list) ? list : list === undefined ? [] : [list]).flatMap((item: unknown) =>
    Object.entries((item ?? {}) as Record<string, unknown>),
  );
  if (items.length > MOST.lines) return fail(`This has ${items.length} interfaces; ${MOST.lines} is the limit.`);
  const observed: Observed[] = [];
  const skipped: string[] = [];
  for (const [port, value] of items) {
    for (const each of Array.isArray(value) ? (value as unknown[]) : [value]) {
      const seen = seenSchema.safeParse(each);
      const row = seen.success ? lldpRow(seenOn, port, seen.data) : fail('it has no chassis');
      if (row.ok) observed.push(row.value);
      else skipped.push(`Interface ${port}: ${row.error}`);
    }
  }
  return ok({ observed, skipped });
}

function lldpRow(
  seenOn: string,
  port: string,
  { chassis = {}, port: far }: z.output<typeof seenSchema>,
): Result<Observed, string> {
  // Either { "name": { id, … } } or, without a name, { id, … }.
  const bare = chassisSchema.safeParse(chassis);
  const [name, inner] =
    'id' in chassis && bare.success ? [bare.data.name ?? '', bare.data] : (Object.entries(chassis)[0] ?? ['', {}]);
  const parsed = chassisSchema.safeParse(inner);
  if (!parsed.success) return fail('its chassis cannot be read');
  const { id, capability } = parsed.data;
  const mac = id?.type === 'mac' ? id.value : '';
  const enabled = (Array.isArray(capability) ? capability : [capability]).filter(
    (cap): cap is { type: string; enabled?: boolean } =>
      typeof cap === 'object' && cap !== null && (cap as { enabled?: boolean }).enabled !== false,
  );
  const kind = enabled.some((cap) => /^bridge$/i.test(cap.type)) ? 'switch' : enabled.length > 0 ? 'host' : '';
  // A port's id may be a MAC address, which says less than its description.
  const devicePort = far?.id && far.id.type !== 'mac' ? far.id.value : (far?.descr ?? far?.id?.value ?? '');
  return observedOf({
    switch: seenOn,
    port,
    device: name || parsed.data.name || mac || (id?.value ?? ''),
    devicePort,
    mac,
    kind,
  });
}

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
