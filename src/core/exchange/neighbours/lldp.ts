/** What the open-source lldpd saw on one switch (`lldpctl -f json`), which its output does not name. */
import { parseJson } from '../../base/json';
import { fail, ok, type Result } from '../../base/result';
import { z } from '../../base/zod';
import type { Observed } from '../../model/document';
import { MOST } from '../csv';
import { observedOf, type NeighbourFormat, type ObservedImport } from './format';

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

export const lldp: NeighbourFormat = {
  name: 'what lldpctl -f json printed on a switch',
  detects: (text) => /^\s*[[{]/.test(text),
  namesSwitch: false,
  read: readLldp,
};
