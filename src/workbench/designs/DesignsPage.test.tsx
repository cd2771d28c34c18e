import { act, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import type { DesignSummary } from '../../contract/api';
import { fernhollow } from '../../core/demo/demos';
import { glanceAt } from '../../core/analysis/glance/glance';
import { writeDesign } from '../../core/model/derive/write';
import { oneAfterAnother } from './oneAfterAnother';
import { DesignsPage, inOrder } from './DesignsPage';

const refresh = jest.fn();
jest.mock('next/navigation', () => ({ useRouter: () => ({ refresh }) }));

const design = (id: string, name: string): DesignSummary => ({
  id,
  name,
  revision: 3,
  switches: 1,
  links: 2,
  updatedAt: 0,
});
let asked: { method: string; path: string; body: unknown }[];
let answer: { status: number; body: unknown };

beforeEach(() => {
  asked = [];
  answer = { status: 200, body: { id: 'x', revision: 1, replayed: false } };
  refresh.mockClear();
  global.fetch = jest.fn((path: string, init: { method: string; body?: string }) => {
    asked.push({ method: init.method, path, body: init.body ? (JSON.parse(init.body) as unknown) : undefined });
    return Promise.resolve({
      ok: answer.status < 300,
      status: answer.status,
      json: () => Promise.resolve(answer.body),
    });
  }) as unknown as typeof fetch;
});

const button = (name: string) => screen.getByRole('button', { name });
const choose = (text: string, name = 'a.knot.json') => {
  const file = new File([text], name);
  Object.assign(file, { text: () => Promise.resolve(text) });
  fireEvent.change(screen.getByLabelText('Design file'), { target: { files: [file] } });
};

describe('the list of designs', () => {
  it('says what to do when there is none', () => {
    render(<DesignsPage designs={[]} />);
    expect(screen.getByText(/Add the demo to look around, start a new one, or import/)).toBeInTheDocument();
  });

  it('shows markup in names as text, and cuts what is endless', () => {
    render(<DesignsPage designs={[design('a', '<i>Ridge</i>'), design('b', 'x'.repeat(10_000))]} />);
    expect(screen.getByRole('link', { name: '<i>Ridge</i>' })).toHaveAttribute('href', '/designs/a');
    expect(screen.getByRole('link', { name: /^x+$/ }).textContent).toHaveLength(300);
    expect(screen.getAllByRole('listitem')[0]).toHaveTextContent('1 switch, 2 links, revision 3');
  });

  it('finds by words of a name, and orders by change, name or size', () => {
    const list = [
      { ...design('a', 'Ridge 10'), switches: 3 },
      { ...design('b', 'Ridge 9'), switches: 9 },
      design('c', 'Valley'),
    ];
    const names = (...wish: [string, Parameters<typeof inOrder>[2]]) =>
      inOrder(list, ...wish)
        .map(({ id }) => id)
        .join('');
    expect([names('', 'changed'), names('', 'name'), names('', 'size'), names('ridge 1', 'name')]).toEqual([
      'abc',
      'bac',
      'bac',
      'a',
    ]);
    render(<DesignsPage designs={list} />);
    fireEvent.change(screen.getByLabelText('Find a design'), { target: { value: 'valley' } });
    expect(screen.getByText('1 of 3 designs')).toBeInTheDocument();
    expect(within(screen.getByRole('list', { name: 'Designs' })).getAllByRole('listitem')).toHaveLength(1);
    fireEvent.change(screen.getByLabelText('Find a design'), { target: { value: '' } });
    fireEvent.click(button('by name'));
    expect(screen.getAllByRole('listitem')[0]).toHaveTextContent('Ridge 9');
  });

  it('draws a network once its row is in view, and says how much there is to find', async () => {
    answer.body = glanceAt(fernhollow());
    let seen: (entries: { isIntersecting: boolean }[]) => void = () => undefined;
    global.IntersectionObserver = class {
      constructor(call: typeof seen) {
        seen = call;
      }
      observe = () => undefined;
      disconnect = () => undefined;
    } as unknown as typeof IntersectionObserver;
    render(<DesignsPage designs={[design('a', 'Ridge')]} />);
    act(() => seen([{ isIntersecting: false }]));
    expect(asked).toEqual([]);
    act(() => seen([{ isIntersecting: true }]));
    expect(await screen.findByText(/7 findings/)).toBeInTheDocument();
    expect(asked.map(({ path }) => path)).toEqual(['/api/designs/a/glance']);
    expect(document.querySelector('[data-glimpse]')).toBeInTheDocument();
  });

  it('runs so many tasks at once as it may, the others in their order', async () => {
    const run = oneAfterAnother(2);
    const begun: number[] = [];
    const ends: (() => void)[] = [];
    const all = [0, 1, 2, 3].map((n) => run(() => new Promise<void>((done) => (begun.push(n), ends.push(done)))));
    expect(begun).toEqual([0, 1]);
    ends[1]!();
    await all[1];
    await Promise.resolve();
    expect(begun).toEqual([0, 1, 2]);
    ends[0]!();
    await all[0];
    ends[2]!();
    await all[2];
    await waitFor(() => expect(begun).toEqual([0, 1, 2, 3]));
    ends[3]!();
    await Promise.all(all);
  });

  it('renames, copies, deletes, and brings back', async () => {
    render(<DesignsPage designs={[design('a', 'Ridge')]} />);
    fireEvent.click(button('Rename Ridge'));
    fireEvent.change(screen.getByLabelText('New name'), { target: { value: 'Crest' } });
    fireEvent.click(button('Rename'));
    fireEvent.click(button('Duplicate Ridge'));
    await waitFor(() => expect(refresh).toHaveBeenCalledTimes(2));
    answer = { status: 204, body: null };
    fireEvent.click(button('Delete Ridge'));
    fireEvent.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(refresh).toHaveBeenCalledTimes(4));
    expect(asked).toEqual([
      { method: 'PATCH', path: '/api/designs/a', body: { name: 'Crest' } },
      { method: 'POST', path: '/api/designs', body: { do: 'duplicate', of: 'a' } },
      { method: 'DELETE', path: '/api/designs/a', body: undefined },
      { method: 'POST', path: '/api/designs/a/restore', body: undefined },
    ]);
  });

  it('says why the server refused, and keeps the list', async () => {
    render(<DesignsPage designs={[design('a', 'Ridge')]} />);
    answer = { status: 404, body: { message: 'There is no design "a".', details: ['gone'] } };
    fireEvent.click(button('Duplicate Ridge'));
    const alert = await screen.findByRole('alert');
    expect(alert).toHaveTextContent('No copy was made');
    expect(alert).toHaveTextContent('There is no design "a".');
    fireEvent.click(within(alert).getByRole('button', { name: 'close' }));
    expect(screen.queryByRole('alert')).toBeNull();
  });

  it('says so when the server does not answer', async () => {
    render(<DesignsPage designs={[design('a', 'Ridge')]} />);
    global.fetch = jest.fn(() => Promise.reject(new Error('refused'))) as unknown as typeof fetch;
    fireEvent.click(button('Delete Ridge'));
    expect(await screen.findByRole('alert')).toHaveTextContent('The Knot Path server does not answer');
  });
});

describe('a file that comes in', () => {
  it('is checked here first: a broken one is not sent', async () => {
    render(<DesignsPage designs={[]} />);
    choose(writeDesign(fernhollow()).replace('"pathCost": "long"', '"pathCost": "medium"'));
    expect(await screen.findByRole('alert')).toHaveTextContent('pathCost: found "medium"; allowed: "short", "long"');
    choose('{', 'half.json');
    await waitFor(() => expect(screen.getByRole('alert')).toHaveTextContent('“half.json” was not imported'));
    expect(asked).toEqual([]);
  });

  it('goes to the server as it is when it is large', async () => {
    render(<DesignsPage designs={[]} />);
    choose(
      writeDesign({ ...fernhollow(), notes: 'x'.repeat(300_000) }).replace(
        '"pathCost": "long"',
        '"pathCost": "medium"',
      ),
    );
    await waitFor(() =>
      expect(asked).toMatchObject([
        { method: 'POST', path: '/api/designs', body: { do: 'import', document: { pathCost: 'medium' } } },
      ]),
    );
  });

  it('is not read when it is beyond the limit', async () => {
    render(<DesignsPage designs={[]} />);
    const file = new File(['x'], 'huge.json');
    Object.defineProperty(file, 'size', { value: 50 * 1024 * 1024 });
    fireEvent.change(screen.getByLabelText('Design file'), { target: { files: [file] } });
    expect(await screen.findByRole('alert')).toHaveTextContent('It holds 50 MiB; 8 MiB is the limit.');
  });
});
