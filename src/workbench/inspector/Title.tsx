'use client';
/** What the selected thing is, in a line or two, with the ways to what it hangs on. */
import type { ReactNode } from 'react';
import type { Bundle, Design, Host, Link, LinkEnd, Port, Switch } from '../../core/model/document';
import { bundlePicture } from '../../core/analysis/lag/bundleEnds';
import { useFarEnds } from '../state/farEnds';
import { useWorkbench } from '../state/context';
import type { Chosen, Subject } from '../state/subject';
import { useBundles } from '../state/useBundles';
import styles from '../ui/panel.module.css';
import { TextButton } from '../ui/TextButton';
import { dialectText } from '../ui/words/choices';
import { counted } from '../../core/base/words';

export function Title({ subject }: { readonly subject: Subject }) {
  switch (subject.kind) {
    case 'design':
      return <DesignTitle design={subject.design} />;
    case 'switch':
      return <SwitchTitle sw={subject.sw} />;
    case 'port':
      return <PortTitle sw={subject.sw} port={subject.port} />;
    case 'bundle':
      return <BundleTitle bundle={subject.bundle} />;
    case 'link':
      return <LinkTitle link={subject.link} />;
    case 'host':
      return <HostTitle host={subject.host} />;
    case 'several':
      return <SeveralTitle chosen={subject.chosen} />;
  }
}

/** A heading with a note beside it and a line below. */
function Heading({
  title,
  children = title,
  note,
  sub,
}: {
  readonly title?: string;
  readonly children?: ReactNode;
  readonly note?: string;
  readonly sub: ReactNode;
}) {
  return (
    <>
      <div className={styles.title}>
        <h2 title={title}>{children}</h2>
        {note && <span className={styles.note}>{note}</span>}
      </div>
      <p className={styles.sub}>{sub}</p>
    </>
  );
}

function DesignTitle({ design }: { readonly design: Design }) {
  const counts = [
    counted(design.switches.length, 'switch', 'switches'),
    counted(design.links.length, 'link'),
    counted(design.vlans.length, 'VLAN'),
    counted(design.hosts.length, 'host'),
  ];
  return <Heading title={design.name} sub={counts.join(', ')} />;
}

function SwitchTitle({ sw }: { readonly sw: Switch }) {
  return (
    <Heading
      title={sw.name ?? sw.id}
      note={dialectText(sw.dialect)}
      sub={`${counted(sw.ports.length, 'port')}, ${sw.mac}`}
    />
  );
}

/** The switch that something is on, which a click selects. */
function SwitchName({ id, name }: { readonly id: Switch['id']; readonly name: string }) {
  const select = useWorkbench((state) => state.select);
  return (
    <TextButton
      style={{ fontWeight: 700, color: 'inherit', padding: 0 }}
      onClick={() => select({ kind: 'switch', switch: id })}
      title="select the switch"
    >
      {name}
    </TextButton>
  );
}

function PortTitle({ sw, port }: { readonly sw: Switch; readonly port: Port }) {
  const select = useWorkbench((state) => state.select);
  const far = useFarEnds()(sw.id, port.id);
  const name = sw.name ?? sw.id;
  const there = far?.switch && far.port ? { switch: far.switch, port: far.port } : null;
  return (
    <Heading
      title={`${name}, port ${port.id}`}
      sub={
        <>
          {far ? 'to ' : 'nothing plugged in'}
          {there ? (
            <TextButton onClick={() => select({ kind: 'port', ...there })}>{far?.text}</TextButton>
          ) : (
            far?.host && <TextButton onClick={() => select({ kind: 'host', host: far.host! })}>{far.text}</TextButton>
          )}
          {far?.link && (
            <>
              {', '}
              <TextButton onClick={() => select({ kind: 'link', link: far.link! })}>the link</TextButton>
            </>
          )}
        </>
      }
    >
      <SwitchName id={sw.id} name={name} />, port {port.id}
    </Heading>
  );
}

function BundleTitle({ bundle }: { readonly bundle: Bundle }) {
  const design = useWorkbench((state) => state.design);
  const { bundles, settled } = useBundles();
  const end = bundles.ends.find(({ owner, id }) => owner.kind === 'switch' && id === bundle.id);
  if (!end) return null;
  const { end: own, opposites } = bundlePicture(design, bundles, end, settled);
  return (
    <Heading
      title={`${own.ownerName}, bundle ${own.name}`}
      sub={opposites.length === 0 ? 'nothing plugged in' : `to ${opposites.map((each) => each.name).join(' and ')}`}
    >
      <SwitchName id={bundle.switch} name={own.ownerName} />, bundle {own.name}
    </Heading>
  );
}

function LinkTitle({ link }: { readonly link: Link }) {
  return (
    <Heading
      sub={
        <>
          <EndName at={link.a} /> to <EndName at={link.b} />
        </>
      }
    >
      Link
    </Heading>
  );
}

/** A port that something is plugged into, which a click selects. */
function EndName({ at }: { readonly at: LinkEnd }) {
  const select = useWorkbench((state) => state.select);
  const name = useWorkbench((state) => state.design.switches.find((sw) => sw.id === at.switch)?.name ?? at.switch);
  return (
    <TextButton onClick={() => select({ kind: 'port', switch: at.switch, port: at.port })}>
      {name} port {at.port}
    </TextButton>
  );
}

function HostTitle({ host }: { readonly host: Host }) {
  return (
    <Heading
      title={host.name ?? host.id}
      note="host"
      sub={
        <>
          {host.attach.length === 0 ? 'plugged in nowhere' : 'plugged into '}
          {host.attach.map((at, i) => (
            <span key={`${at.switch} ${at.port}`}>
              {i > 0 && ' and '}
              <EndName at={at} />
            </span>
          ))}
        </>
      }
    />
  );
}

function SeveralTitle({ chosen: { items, switches, links, ports, hosts } }: { readonly chosen: Chosen }) {
  const parts = [
    [switches.length, 'switch', 'switches'],
    [links.length, 'link', 'links'],
    [ports.length, 'port', 'ports'],
    [hosts.length, 'host', 'hosts'],
  ] as const;
  const kinds = parts.flatMap(([n, one, many]) => (n > 0 ? [counted(n, one, many)] : []));
  return (
    <Heading
      sub={
        <>
          {kinds.length > 1 && `${kinds.join(', ')}. `}A value set here is set for all
          {kinds.length > 1 && ' of its kind'}.
        </>
      }
    >
      {kinds.length === 1 ? kinds[0] : counted(items.length, 'thing')} selected
    </Heading>
  );
}
