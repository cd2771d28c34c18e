/** The Hand over view: settings as files, with what a form cannot say. */
import { act, fireEvent, screen, within } from '@testing-library/react';
import { unzipSync } from 'fflate';
import { ok } from '../../../core/base/result';
import { designOf } from '../../../core/testing/networks';
import type { SwitchId } from '../../../core/model/ids';
import { api } from '../../state/api';
import { renderWith, settle } from '../../testing';
import { CHAPTERS } from '../../../core/exchange/report/chapters';
import { LabTable } from './LabTable';
import { ReportTable } from './ReportTable';
import { SettingsTable } from './SettingsTable';
import { TablesTable } from './TablesTable';
import { TemplatesTable } from './TemplatesTable';

beforeEach(() => void jest.spyOn(api, 'templates').mockResolvedValue(ok({ templates: [] })));

const text = () => document.querySelector('pre')!.textContent;

it('shows the file of the switch that is selected or chosen, and what its form cannot say', async () => {
  const store = await renderWith(<SettingsTable />);
  expect(screen.getByLabelText('ridge-a.openconfig.json')).toBeInTheDocument();
  expect(screen.getByRole('heading')).toHaveTextContent('Everything that is set is said');
  act(() => store.getState().select({ kind: 'switch', switch: 'lodge' as SwitchId }));
  await settle();
  expect(text()).toContain('"system-name": "lodge"');
  fireEvent.change(screen.getByLabelText('Form'), { target: { value: 'linux' } });
  fireEvent.change(screen.getByLabelText('Switch'), { target: { value: 'workshop' } });
  await settle();
  expect(text()).toContain('ip link add name workshop');
  const left = within(screen.getByRole('region', { name: 'What the form cannot say' }));
  expect(left.getAllByRole('listitem')[0]).toHaveTextContent('it will not speak Per-VLAN rapid');
  act(
    () =>
      void store
        .getState()
        .act({ do: 'set-bridge-priority', switch: 'workshop' as SwitchId, tree: null, priority: 4096 }),
  );
  await settle();
  expect(text()).toContain('priority 4096');
});

it('saves all files in one archive, with what is left out', async () => {
  const saved: string[] = [];
  const blobs: Blob[] = [];
  Object.assign(URL, { createObjectURL: (blob: Blob) => `blob:${blobs.push(blob)}`, revokeObjectURL: () => undefined });
  jest.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(function (this: HTMLAnchorElement) {
    saved.push(this.download);
  });
  await renderWith(<SettingsTable />);
  fireEvent.click(screen.getByRole('button', { name: 'Save this file' }));
  fireEvent.change(screen.getByLabelText('Form'), { target: { value: 'ovs' } });
  fireEvent.click(screen.getByRole('button', { name: 'Save all 8 switches' }));
  expect(saved).toEqual(['ridge-a.openconfig.json', 'fernhollow-observatory-ovs.zip']);
  const octets = await new Promise<ArrayBuffer>((done) => {
    const reader = new FileReader();
    reader.onload = () => done(reader.result as ArrayBuffer);
    reader.readAsArrayBuffer(blobs[1]!);
  });
  const files = unzipSync(new Uint8Array(octets));
  expect(Object.keys(files)).toHaveLength(9);
  expect(new TextDecoder().decode(files['left-out.txt'])).toContain('Open vSwitch has one tree for all VLANs');
});

it('shows every file of a form that has several', async () => {
  await renderWith(<SettingsTable />);
  fireEvent.change(screen.getByLabelText('Form'), { target: { value: 'networkd' } });
  expect(screen.getByLabelText('ridge-a/10-ridge-a.netdev')).toHaveTextContent('Kind=bridge');
  fireEvent.change(screen.getByLabelText('Switch'), { target: { value: 'lodge' } });
  expect(screen.getByLabelText('lodge/20-bundle1.netdev')).toHaveTextContent('Mode=802.3ad');
  expect(screen.getByRole('button', { name: /^Save these \d+ files$/ })).toBeEnabled();
});

it('follows the selection again after a switch was chosen in the list', async () => {
  const store = await renderWith(<SettingsTable />);
  fireEvent.change(screen.getByLabelText('Switch'), { target: { value: 'workshop' } });
  expect(text()).toContain('"system-name": "workshop"');
  act(() => store.getState().select({ kind: 'switch', switch: 'lodge' as SwitchId }));
  await settle();
  expect(text()).toContain('"system-name": "lodge"');
});

it('shows the whole design in one file, too: as lines, and as a graph', async () => {
  await renderWith(<SettingsTable />);
  fireEvent.change(screen.getByLabelText('Form'), { target: { value: 'dot' } });
  expect(screen.getByLabelText('fernhollow-observatory.dot')).toHaveTextContent('"switch:ridge-a" -- "switch:ridge-b"');
  expect(screen.queryByLabelText('Switch')).toBeNull();
  fireEvent.change(screen.getByLabelText('Form'), { target: { value: 'lines' } });
  expect(text()).toContain('ridge-a 1 = ridge-b 1');
});

it('writes by a template, shows its fault at its line, and keeps it in the design', async () => {
  const store = await renderWith(<TemplatesTable />);
  const area = screen.getByLabelText<HTMLTextAreaElement>('Text of the template');
  expect(screen.getByLabelText('Preview')).toHaveTextContent('ridge-a: what to set');
  fireEvent.change(area, { target: { value: 'x\n{{ name | rangs }}' } });
  await settle();
  expect(screen.getByRole('alert')).toHaveTextContent('Line 2, column 1: undefined filter: rangs.');
  fireEvent.click(screen.getByRole('button', { name: 'show the line' }));
  expect(area.value.slice(area.selectionStart, area.selectionEnd)).toBe('{{ name | rangs }}');
  fireEvent.change(area, { target: { value: '{{ name }} of mine' } });
  await settle();
  expect(screen.getByLabelText('Preview')).toHaveTextContent('ridge-a of mine');
  fireEvent.click(screen.getByRole('button', { name: 'Keep it in the design' }));
  await settle();
  expect(store.getState().design.templates).toMatchObject([{ id: 'worklist', text: '{{ name }} of mine' }]);
  fireEvent.click(screen.getByRole('button', { name: 'New' }));
  fireEvent.change(screen.getByLabelText('Name'), { target: { value: 'Another' } });
  fireEvent.click(screen.getByRole('button', { name: 'Keep it in the design' }));
  await settle();
  expect(store.getState().design.templates.map(({ name }) => name)).toEqual(['Worklist', 'Another']);
  fireEvent.click(screen.getByRole('button', { name: 'forget it' }));
  await settle();
  expect(store.getState().design.templates.map(({ name }) => name)).toEqual(['Worklist']);
});

it('shows what a template makes of the switch that was chosen or selected last', async () => {
  const store = await renderWith(<TemplatesTable />);
  fireEvent.change(screen.getByLabelText('Switch'), { target: { value: 'workshop' } });
  expect(screen.getByLabelText('Preview')).toHaveTextContent('workshop: what to set');
  act(() => store.getState().select({ kind: 'switch', switch: 'lodge' as SwitchId }));
  await settle();
  expect(screen.getByLabelText('Preview')).toHaveTextContent('lodge: what to set');
});

it('says how a lab is run, reads what one found, and leads to the place of a difference', async () => {
  const store = await renderWith(<LabTable />);
  expect(screen.getByText(/npx knot-path lab/)).toHaveTextContent('fernhollow-observatory.knot.json');
  const choose = (text: string) =>
    fireEvent.change(screen.getByLabelText('Result of a lab'), {
      target: {
        files: [
          Object.assign(new File([text], 'lab.json'), {
            arrayBuffer: async () => new TextEncoder().encode(text).buffer,
          }),
        ],
      },
    });
  choose('[]');
  expect(await screen.findByRole('alert')).toHaveTextContent('This is no result of a lab');
  choose(
    JSON.stringify({
      format: 'knot-path-lab',
      version: 1,
      name: 'Another',
      with: 'ovs',
      tree: 'vlan:15',
      at: '2026-01-01T12:00:00Z',
      leftOut: [],
      rounds: [
        {
          after: 'Built',
          seconds: 3,
          compared: 9,
          differences: [{ switch: 'lodge', interface: 'port3', what: 'role', there: 'root', ours: 'alternate' }],
        },
      ],
    }),
  );
  const found = within(await screen.findByRole('region', { name: 'What the lab found' }));
  expect(found.getByText('1 thing otherwise than we say')).toBeInTheDocument();
  expect(found.getByText('It is a result of “Another”.')).toBeInTheDocument();
  fireEvent.click(found.getByRole('button', { name: 'lodge port 3' }));
  expect(store.getState().selection).toEqual({ kind: 'port', switch: 'lodge', port: '3' });
});

it('chooses and orders the chapters of the report, with a note to each', async () => {
  const store = await renderWith(<ReportTable />);
  const report = () => store.getState().design.report?.map(({ chapter, note }) => [chapter, note]);
  expect(screen.getAllByRole('checkbox', { checked: true })).toHaveLength(CHAPTERS.length);
  fireEvent.click(screen.getByRole('checkbox', { name: 'Loads' }));
  await settle();
  expect(report()).toHaveLength(CHAPTERS.length - 1);
  fireEvent.click(screen.getByRole('button', { name: 'earlier, Trees' }));
  await settle();
  expect(report()!.slice(2, 4)).toEqual([
    ['trees', ''],
    ['plan', ''],
  ]);
  const note = screen.getByLabelText('Note to Summary');
  fireEvent.change(note, { target: { value: 'For the night shift' } });
  fireEvent.blur(note);
  await settle();
  expect(report()![0]).toEqual(['summary', 'For the night shift']);
  fireEvent.click(screen.getByRole('button', { name: 'all chapters again' }));
  await settle();
  expect(report()).toBeUndefined();
});

it('reads tables back: shows what they change before it is taken, and what is wrong at its cell', async () => {
  const store = await renderWith(<TablesTable />);
  const choose = (name: string, text: string) =>
    fireEvent.change(screen.getByLabelText('Tables to read back'), {
      target: {
        files: [
          Object.assign(new File([text], name), { arrayBuffer: async () => new TextEncoder().encode(text).buffer }),
        ],
      },
    });
  expect(screen.getByRole('region', { name: 'Tables' })).toHaveTextContent('Ports');
  choose('costs.csv', 'switch,port,all trees\nlodge,3,cheap\n');
  expect(await screen.findByText('costs.csv, line 2, all trees: found “cheap”; allowed: a number')).toBeInTheDocument();
  choose('costs.csv', 'switch,port,all trees\nlodge,3,777\n');
  expect(await screen.findByText('lodge port 3: cost from speed to 777')).toBeInTheDocument();
  fireEvent.click(screen.getByRole('button', { name: 'take this step, step 1' }));
  await settle();
  const lodge = store.getState().design.switches.find(({ id }) => id === 'lodge')!;
  expect(lodge.ports.find(({ id }) => id === '3')!.cost).toBe(777);
  expect(await screen.findByText(/Nothing in them differs from the design/)).toBeInTheDocument();
});

it('says so where there is no switch', async () => {
  await renderWith(<SettingsTable />, designOf({}));
  expect(screen.getByText(/There is no switch yet/)).toBeInTheDocument();
});
