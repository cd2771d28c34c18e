'use client';
/** The command palette: every action and every object by a few letters of its name. */
import Dialog from '@mui/material/Dialog';
import { useMemo, useState, type KeyboardEvent } from 'react';
import { treeName } from '../../core/model/ids';
import { ACTIONS } from './actions';
import { useWorkbench, useWorkbenchStore } from '../state/context';
import type { Workbench } from '../state/store';
import { buttonsOnScreen } from './onScreen';
import type { PaletteEntry } from './paletteEntry';
import { useScheme } from './useScheme';
import styles from './dialogs.module.css';

/** Most lines shown. */
const MOST = 60;

/** Every action that can be done now, then every object. */
export function offersOf(state: Workbench): PaletteEntry[] {
  const { design, solution } = state;
  const nameOf = new Map(design.switches.map((sw) => [sw.id, sw.name ?? sw.id]));
  return [
    ...ACTIONS.filter((action) => action.id !== 'palette' && (action.when?.(state) ?? true)).map(
      (action): PaletteEntry => ({
        key: action.id,
        name: action.name,
        detail: action.keys?.[0] ?? '',
        run: action.run,
      }),
    ),
    ...design.switches.map((sw): PaletteEntry => ({
      key: `s ${sw.id}`,
      name: sw.name ?? sw.id,
      detail: `${sw.tier} switch`,
      run: (now) => now.goTo({ kind: 'switch', switch: sw.id }),
    })),
    ...(solution?.trees ?? []).map((tree): PaletteEntry => {
      const vlan = design.vlans.find((each) => tree.id === `vlan:${each.id}`);
      return {
        key: `t ${tree.id}`,
        name: `Tree ${tree.id === 'cst' ? 'of all VLANs' : `of ${treeName(tree.id)}`}${vlan?.name ? ` ${vlan.name}` : ''}`,
        detail: 'show alone',
        run: (now) => now.showTree(tree.id, 'alone'),
      };
    }),
    ...design.vlans.map((vlan): PaletteEntry => ({
      key: `v ${vlan.id}`,
      name: `VLAN ${vlan.id}${vlan.name ? ` ${vlan.name}` : ''}`,
      detail: 'in the table of VLANs',
      run: (now) => {
        now.setLens('Cable');
        now.openDrawer('vlans');
      },
    })),
    ...design.hosts.map((host): PaletteEntry => ({
      key: `h ${host.id}`,
      name: host.name ?? host.id,
      detail: `host in VLAN ${host.vlan}`,
      run: (now) => now.goTo({ kind: 'host', host: host.id }),
    })),
    ...design.links.map((link): PaletteEntry => ({
      key: `l ${link.id}`,
      name: `${nameOf.get(link.a.switch)} ${link.a.port} to ${nameOf.get(link.b.switch)} ${link.b.port}`,
      detail: link.up ? 'link' : 'link, cut',
      run: (now) => now.goTo({ kind: 'link', link: link.id }),
    })),
    ...design.switches.flatMap((sw) =>
      sw.ports.map((port): PaletteEntry => ({
        key: `p ${sw.id} ${port.id}`,
        name: `${sw.name ?? sw.id} port ${port.id}`,
        detail: 'port',
        run: (now) => now.goTo({ kind: 'port', switch: sw.id, port: port.id }),
      })),
    ),
  ];
}

/** Offers that hold every typed word, those that begin with the first one first. */
export function matchingOffers(offers: readonly PaletteEntry[], text: string): PaletteEntry[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const [first] = words;
  if (first === undefined) return [...offers];
  const scored = offers.flatMap((offer, i) => {
    const name = offer.name.toLowerCase();
    const whole = `${name} ${offer.detail.toLowerCase()}`;
    if (!words.every((word) => whole.includes(word))) return [];
    return [{ offer, score: (name.startsWith(first) ? 0 : name.includes(` ${first}`) ? 1 : 2) * 100_000 + i }];
  });
  return scored.sort((a, b) => a.score - b.score).map(({ offer }) => offer);
}

export function Palette() {
  const open = useWorkbench((state) => state.dialog === 'palette');
  const openDialog = useWorkbench((state) => state.openDialog);
  return (
    <Dialog
      open={open}
      onClose={() => openDialog(null)}
      maxWidth="sm"
      fullWidth
      slotProps={{
        container: { sx: { alignItems: 'flex-start' } },
        paper: { 'aria-label': 'Find an action or an object' },
      }}
    >
      {open && <PaletteBody close={() => openDialog(null)} />}
    </Dialog>
  );
}

function PaletteBody({ close }: { readonly close: () => void }) {
  const store = useWorkbenchStore();
  const { dark, toggle } = useScheme();
  const [offers] = useState(() => {
    const all = [
      { key: 'scheme', name: dark ? 'Light scheme' : 'Dark scheme', detail: '', run: toggle },
      ...offersOf(store.getState()),
    ];
    return [...all, ...buttonsOnScreen(new Set(all.map(({ name }) => name)))];
  });
  const [text, setText] = useState('');
  const [at, setAt] = useState(0);
  const found = useMemo(() => matchingOffers(offers, text), [offers, text]);
  const shown = found.slice(0, MOST);
  const run = (offer: PaletteEntry | undefined) => {
    if (!offer) return;
    close();
    offer.run(store.getState());
  };
  const onKey = (event: KeyboardEvent) => {
    if (event.key === 'Enter') {
      event.preventDefault(); // or the field that has the focus afterwards gets a new line
      run(shown[at]);
    }
    if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return;
    event.preventDefault();
    const next = (at + (event.key === 'ArrowDown' ? 1 : -1) + shown.length) % Math.max(1, shown.length);
    setAt(next);
    document.getElementById(`offer-${next}`)?.scrollIntoView({ block: 'nearest' });
  };
  return (
    <div className={styles.palette}>
      <input
        data-filter=""
        autoFocus
        className={styles.search}
        value={text}
        placeholder="An action, a switch, a tree, a host, a link"
        role="combobox"
        aria-label="Find an action or an object"
        aria-expanded
        aria-controls="offers"
        aria-activedescendant={shown.length > 0 ? `offer-${at}` : undefined}
        onChange={(event) => {
          setText(event.target.value);
          setAt(0);
        }}
        onKeyDown={onKey}
      />
      <ul id="offers" role="listbox" aria-label="Found" className={styles.offers}>
        {shown.map((offer, i) => (
          <li
            key={offer.key}
            id={`offer-${i}`}
            role="option"
            aria-selected={i === at}
            onClick={() => run(offer)}
            onMouseMove={() => setAt(i)}
          >
            <span>{offer.name.slice(0, 120)}</span> <small>{offer.detail}</small>
          </li>
        ))}
      </ul>
      <p className={styles.note} aria-live="polite">
        {found.length === 0
          ? 'Nothing is called that.'
          : found.length > MOST
            ? `${found.length} found; a few more letters narrow it down.`
            : `${found.length} found`}
      </p>
    </div>
  );
}
