/** Events as messages for a syslog collector (RFC 5424). */
import type { EventKind } from './events';

/** Facility local0 (RFC 5424 6.2.1). */
const FACILITY = 16;
/** Severities: error, warning, notice. */
const SEVERITY: Readonly<Record<EventKind, number>> = {
  silent: 3,
  root: 3,
  rule: 3,
  signal: 4,
  member: 4,
  missed: 4,
  port: 5,
  change: 5,
  neighbour: 5,
  back: 5,
};
/** An identifier under which a name cannot collide; that of examples (RFC 5612). */
const ELEMENT = 'event@32473';

export interface Said {
  readonly kind: EventKind;
  readonly text: string;
  readonly switch: string | null;
}

/** One message; `at`: ISO 8601; `host`: who sends it. */
export function syslogMessage({ kind, text, switch: sw }: Said, at: string, host: string): string {
  const data = [`kind="${kind}"`, ...(sw === null ? [] : [`switch="${escaped(sw)}"`])].join(' ');
  // A byte order mark says that the text is UTF-8 (6.4).
  return `<${FACILITY * 8 + SEVERITY[kind]}>1 ${at} ${printable(host) || '-'} knot-path - ${kind} [${ELEMENT} ${data}] \uFEFF${text}`;
}

/** In a value of structured data three characters are written behind a backslash (6.3.3). */
const escaped = (value: string): string =>
  value.replace(/["\\\]]/g, (char) => `\\${char}`).replace(/[\u0000-\u001f]/g, ' ');
const printable = (value: string): string => value.replace(/[^\u0021-\u007e]/g, '').slice(0, 255);
