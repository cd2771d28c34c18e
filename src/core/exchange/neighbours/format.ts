/** Neighbours as switches report them: what a format is, and the rows that each gives. */
import { fail, ok, type Result } from '../../base/result';
import { isTitle, type Observed } from '../../model/document';
import { macAddress } from '../../model/legal';

/** What an import found, and the lines that it could not use. */
export interface ObservedImport {
  readonly observed: readonly Observed[];
  readonly skipped: readonly string[];
}

/** A format in which switches report their neighbours. */
export interface NeighbourFormat {
  /** What a file of it is, in words. */
  readonly name: string;
  /** Whether a text looks like it; the first format that says so reads it. */
  detects(text: string): boolean;
  /** Whether it names the switches itself; otherwise somebody has to say where it was printed. */
  readonly namesSwitch: boolean;
  /** The error is a sentence. */
  read(text: string, seenOn: string): Result<ObservedImport, string>;
}

/** A row as it was read; what is not known is empty. */
export function observedOf(raw: {
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
