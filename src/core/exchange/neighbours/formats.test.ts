import { fernhollow } from '../../demo/demos';
import { neighboursOf } from '../../analysis/neighbours/neighbours';
import { readCsv, writeCsv } from '../csv';
import { readLldp } from './lldp';
import { designedCsv, readObservedCsv } from './table';
import { MAX_FILE, decodeText } from '../text';

const rowsOf = (text: string) => {
  const read = readObservedCsv(text);
  if (!read.ok) throw new Error(read.error);
  return read.value;
};
const faultOf = (result: { ok: true } | { ok: false; error: string }) => (result.ok ? 'nothing wrong' : result.error);

describe('a table of neighbours', () => {
  it('written from a design is, read back, as drawn', () => {
    const { observed, skipped } = rowsOf(designedCsv(fernhollow()));
    expect(skipped).toEqual([]);
    const verdicts = new Set(neighboursOf({ ...fernhollow(), observed: [...observed] }).map((row) => row.verdict));
    expect(verdicts).toEqual(new Set(['as drawn', 'not observed'])); // ports without a cable
  });

  it.each([
    ['semicolons', 'Switch;Port;Neighbour;Neighbour port\nridge-a;1;ridge-b;1\n'],
    ['tabs and other headings', 'Local system\tLocal port\tRemote system\tRemote port\r\nridge-a\t1\tridge-b\t1\r\n'],
    [
      'quotation marks and a byte order mark',
      '\uFEFF"switch","port","neighbor","neighbor port"\n"ridge-a","1","ridge-b","1"\n\n',
    ],
  ])('may have %s', (_, text) =>
    expect(rowsOf(text).observed).toEqual([{ switch: 'ridge-a', port: '1', device: 'ridge-b', devicePort: '1' }]),
  );

  it('names the column that is missing, and the lines that cannot be used', () => {
    expect(faultOf(readObservedCsv('switch,neighbour\na,b'))).toContain(
      'The column "port" is missing. The heading has "switch", "neighbour".',
    );
    expect(faultOf(readObservedCsv(''))).toContain('The file is empty');
    expect(faultOf(readObservedCsv('switch,port,neighbour\na,"1,b'))).toContain('quotation mark');
    expect(rowsOf('switch,port,neighbour,kind,mac\n,1,b,,\nr,1,,,\nr,2,b,Bridge,02-00-00-00-00-09\n')).toEqual({
      observed: [{ switch: 'r', port: '2', device: 'b', kind: 'switch', mac: '02:00:00:00:00:09' }],
      skipped: ['Line 2: no switch'],
    });
  });

  it('gives names that begin like formulas back as they are', () => {
    const names = ['=1+1', '+a', '-b', '@c', "'quoted'", 'plain'];
    const read = readCsv(
      writeCsv(
        ['name', 'x'],
        names.map((name) => [name, '1']),
      ),
    );
    expect(read.ok && read.value.rows.map(({ values }) => values.name)).toEqual(names);
  });

  it('is no longer than it may be', () => {
    expect(faultOf(readObservedCsv(`switch,port,neighbour${',x'.repeat(300)}\na,1,b`))).toBe(
      'The heading has 303 columns; 200 is the limit.',
    );
    expect(faultOf(readObservedCsv(`switch,port,neighbour\n${'a,1,b\n'.repeat(50_001)}`))).toContain(
      'more than 50000 lines',
    );
  });

  it('does not let a spreadsheet run a name as a formula', () => {
    const text = writeCsv(['name'], [['=1+1'], ['plain']]);
    expect(text).toBe('name\r\n"\'=1+1"\r\nplain\r\n');
    expect(readCsv(text).ok).toBe(true);
  });
});

describe('what lldpd prints', () => {
  const interfaces = [
    {
      'port-1': {
        via: 'LLDP',
        rid: '1',
        chassis: {
          'ridge-b': {
            id: { type: 'mac', value: '02:4b:00:00:00:0b' },
            descr: 'a bridge',
            capability: [
              { type: 'Bridge', enabled: true },
              { type: 'Router', enabled: false },
            ],
          },
        },
        port: { id: { type: 'ifname', value: 'port-2' }, descr: 'port-2' },
      },
    },
    {
      'port-9': {
        chassis: { id: { type: 'mac', value: '02:4b:00:00:01:07' }, capability: { type: 'Station', enabled: true } },
        port: { id: { type: 'mac', value: '02:4b:00:00:01:07' }, descr: 'card 1' },
      },
    },
  ];
  it('is read with one neighbour or several, with a name or without', () => {
    const all = readLldp(JSON.stringify({ lldp: { interface: interfaces } }), 'ridge-a');
    expect(all).toEqual({
      ok: true,
      value: {
        skipped: [],
        observed: [
          {
            switch: 'ridge-a',
            port: 'port-1',
            device: 'ridge-b',
            devicePort: 'port-2',
            mac: '02:4b:00:00:00:0b',
            kind: 'switch',
          },
          {
            switch: 'ridge-a',
            port: 'port-9',
            device: '02:4b:00:00:01:07',
            devicePort: 'card 1',
            mac: '02:4b:00:00:01:07',
            kind: 'host',
          },
        ],
      },
    });
    const one = readLldp(JSON.stringify({ lldp: { interface: interfaces[0] } }), 'ridge-a');
    expect(one.ok && one.value.observed).toHaveLength(1);
    expect(readLldp('{"lldp":{}}', 'ridge-a')).toEqual({ ok: true, value: { observed: [], skipped: [] } });
  });
  it('that is something else is refused in a sentence', () => {
    expect(faultOf(readLldp('[1', 'a'))).toContain('This is not JSON that can be read');
    expect(faultOf(readLldp('{"other":1}', 'a'))).toContain('not what lldpctl -f json prints');
    const odd = readLldp('{"lldp":{"interface":{"port-1":{"port":{}}}}}', 'a');
    expect(odd.ok && odd.value.skipped).toEqual(['Interface port-1: no neighbour']);
  });
});

describe('octets of a file', () => {
  const octets = (...values: number[]) => Uint8Array.from(values);
  it('are text in UTF-8, UTF-16 or Western European', () => {
    expect(decodeText(new TextEncoder().encode('ü'))).toEqual({ ok: true, value: 'ü' });
    expect(decodeText(octets(0xff, 0xfe, 0xfc, 0))).toEqual({ ok: true, value: 'ü' });
    expect(decodeText(octets(0xfe, 0xff, 0, 0xfc))).toEqual({ ok: true, value: 'ü' });
    expect(decodeText(octets(0xfc))).toEqual({ ok: true, value: 'ü' });
  });
  it('that are no text, or too many, are refused', () => {
    expect(faultOf(decodeText(octets(65, 0, 66)))).toContain('no text file');
    expect(faultOf(decodeText(octets(0xfc, 0)))).toContain('no text file');
    expect(faultOf(decodeText(new Uint8Array(50 * 1024 * 1024)))).toBe(
      `The file holds 50 MiB; ${MAX_FILE / 1024 / 1024} MiB is the limit.`,
    );
  });
});
