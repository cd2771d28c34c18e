/** What commands that read a network have in common: whom they ask, by what, and where. */
import type { Command } from 'commander';
import type { z } from '../core/base/zod';
import { addressField, withinOf } from '../core/exchange/observation/asked';
import { credentialOf } from '../snmp/credentials';
import { Unusable, valueOf, wholeOf } from './input';

export interface SourceOptions {
  readonly credentials?: string;
  readonly within?: string;
  readonly port: string;
}

/** Adds the options that say whom to ask. */
export const withSource = (command: Command): Command =>
  command
    .option('--credentials <name>', 'what they are asked by: a name in the file of credentials')
    .option('--within <networks>', 'neighbours in these are asked, too: 192.0.2.0/24,198.51.100.0/25')
    .option('--port <number>', 'at which they answer', '161');

/** Whom to ask, by what and where. */
export function sourceOf(addresses: readonly string[], { credentials, within = '', port }: SourceOptions) {
  for (const address of addresses) checked('ADDRESS', addressField, address);
  if (credentials === undefined) throw new Unusable('--credentials is missing: what switches are asked by');
  return {
    addresses,
    credential: valueOf('--credentials', credentialOf(credentials)),
    isNamed: valueOf('--within', withinOf(within)),
    port: wholeOf('--port', port, 1, 65_535),
  };
}

/** A text that a field takes, or an error that says what it takes. */
export function checked(option: string, field: z.ZodType<string>, text: string): string {
  const read = field.safeParse(text);
  if (read.success) return read.data;
  throw new Unusable(`${option}: found "${text}"; allowed: ${read.error.issues[0]!.message}`);
}
