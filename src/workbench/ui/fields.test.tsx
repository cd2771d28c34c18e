import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { TextSetting } from './fields';
import * as read from './read';

/** A field over a value that it can change, as in the inspector. */
function Field({ commits, refuse }: { readonly commits: (number | null)[]; readonly refuse?: string }) {
  const [value, setValue] = useState('32768');
  return (
    <TextSetting
      label="Priority"
      value={value}
      read={read.bridgePriority}
      commit={(next) => {
        if (refuse) return refuse;
        commits.push(next);
        setValue(next === null ? '' : String(next));
        return null;
      }}
    />
  );
}

const field = () => screen.getByLabelText('Priority');

describe('a setting', () => {
  it('takes its value with Enter, and once only when it is left afterwards', async () => {
    const commits: (number | null)[] = [];
    render(<Field commits={commits} />);
    await userEvent.clear(field());
    await userEvent.type(field(), '4 096{Enter}');
    await userEvent.tab();
    expect(commits).toEqual([4096]);
    expect(field()).toHaveValue('4096');
  });

  it('keeps what was typed when it is not legal, and takes a value that it offers', async () => {
    const commits: (number | null)[] = [];
    render(<Field commits={commits} />);
    await userEvent.clear(field());
    await userEvent.type(field(), '5000');
    await userEvent.tab();
    expect(field()).toHaveValue('5000');
    expect(screen.getByRole('alert')).toHaveTextContent('in steps of 4096; 5000 is not');
    await userEvent.click(screen.getByRole('button', { name: 'use 8192' }));
    expect(commits).toEqual([8192]);
    expect(screen.queryByRole('alert')).toBeNull();
  });

  it('gives back what stands in the design with Escape', async () => {
    render(<Field commits={[]} />);
    await userEvent.type(field(), '9{Enter}{Escape}');
    expect(field()).toHaveValue('32768');
    expect(screen.queryByRole('alert')).toBeNull();
  });

  it('says why the design refuses', async () => {
    render(<Field commits={[]} refuse="links[0].a: found nothing" />);
    await userEvent.clear(field());
    await userEvent.type(field(), '0{Enter}');
    expect(screen.getByRole('alert')).toHaveTextContent('links[0].a');
    expect(field()).toHaveValue('0');
  });
});

describe('texts of the inspector', () => {
  it.each([
    ['10G', 10_000],
    ['2.5 Gb/s', 2500],
    ['100M', 100],
    ['100 Mbit/s', 100],
    ['1 gbps', 1000],
    ['25000', 25_000],
  ])('%s is a speed of %i Mb/s', (text, speed) => expect(read.speed(text)).toEqual({ ok: true, value: speed }));

  it.each(['', 'fast', '0', '-1G', '99T', '1.2.3G'])('%j is no speed', (text) =>
    expect(read.speed(text).ok).toBe(false),
  );

  it('read costs by method, empty for none', () => {
    expect(read.pathCost('short')('65535')).toEqual({ ok: true, value: 65_535 });
    expect(read.pathCost('short')('65536')).toMatchObject({
      ok: false,
      error: { message: expect.stringContaining('1 to 65535 (short method)') as string },
    });
    expect(read.pathCost('long')(' 20 000 ')).toEqual({ ok: true, value: 20_000 });
    expect(read.pathCost('long')('')).toEqual({ ok: true, value: null });
  });

  it('read VLAN sets, pointing at the character', () => {
    expect(read.vlans('25, 15')).toEqual({ ok: true, value: '15,25' });
    expect(read.vlans('15,5-3')).toMatchObject({
      ok: false,
      error: { message: expect.stringContaining('at character 4') as string },
    });
    expect(read.vlan('4095').ok).toBe(false);
  });

  it('turn a trunk into an access port of its native VLAN, and back', () => {
    const trunk = { mode: 'trunk', native: 15, allowed: '15,25' } as const;
    expect(read.carriageAs('access', trunk)).toEqual({ mode: 'access', vlan: 15 });
    expect(read.carriageAs('trunk', { mode: 'access', vlan: 25 })).toEqual({
      mode: 'trunk',
      native: 25,
      allowed: '1-4094',
    });
    expect(read.carriageAs('trunk', trunk)).toBe(trunk);
  });
});
