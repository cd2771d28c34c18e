'use client';
/** A switch on the map: name, root path cost in each shown tree, the knot of a root, its ports' labels, its hosts. */
import { means } from '../ui/means';
import { runsTrees } from '../../core/model/document';
import type { NodeProps, Node } from '@xyflow/react';
import { memo } from 'react';
import type { SwitchId } from '../../core/model/ids';
import type { Host } from '../../core/model/document';
import { useInstant } from '../state/clock';
import { useWorkbench, useWorkbenchStore } from '../state/context';
import type { Workbench } from '../state/workbench';
import { isSelected } from '../state/selection';
import { counted } from '../../core/base/words';
import type { Attachment, Box } from './geometry';
import { useCableDrag } from './cableDrag';
import { isSheafEnd } from './folded';
import { figuresKey, readFigures, rootColours, widthOf } from './figures';
import { FreePorts } from './FreePorts';
import { Knot, Loop } from './knots';
import { mapSwitch, useMapSwitch } from './mapDesign';
import { useFar } from './seen';
import styles from './map.module.css';
import { inPixels, useScale } from './scale';

export type SwitchNodeType = Node<{ box: Box }, 'switch'>;

export const SwitchNode = memo(function SwitchNode({ data: { box } }: NodeProps<SwitchNodeType>) {
  const far = useFar();
  const scale = useScale();
  return (
    <div style={{ ...inPixels(scale), width: box.width, height: box.height }}>
      {far ? <FarSwitch box={box} /> : <NearSwitch box={box} />}
    </div>
  );
});

/** The name as far as there is room for it, and whole where the switch is chosen or pointed at. */
function Name({ box, name }: { readonly box: Box; readonly name: string }) {
  return (
    <>
      {box.name !== null && (
        <span className={`${styles.name} ${box.tight ? styles.nameTight : ''}`} style={{ maxWidth: box.nameWidth }}>
          {box.name}
        </span>
      )}
      {box.name !== name && <span className={styles.nameWhole}>{name.slice(0, 200)}</span>}
    </>
  );
}

/**
 * From afar: the box, its name as large as it goes, heavy where it is a root. Hundreds of these follow every change: each asks once,
 * for all that it shows, and for instants only where the view shows them.
 */
function FarSwitch({ box }: { readonly box: Box }) {
  const breaking = useWorkbench((state) => state.lens === 'Break');
  return breaking ? <FarAtInstant box={box} /> : <FarSettled box={box} />;
}

/** Whether a switch is selected, among others or alone. */
const chosenAs = ({ selection }: Pick<Workbench, 'selection'>, id: SwitchId): '' | 'among' | 'alone' =>
  !isSelected(selection, { kind: 'switch', switch: id }) ? '' : selection?.kind === 'several' ? 'among' : 'alone';

function FarSettled({ box }: { readonly box: Box }) {
  const key = useWorkbench(
    (state) =>
      `${rootColours(state, box.id)}\n${chosenAs(state, box.id)}\n${mapSwitch(state.design, box.id)?.name ?? box.id}`,
  );
  const [marks = '', chosen = '', name = ''] = key.split('\n');
  return <FarBox {...{ box, marks, chosen, name }} />;
}

function FarAtInstant({ box }: { readonly box: Box }) {
  const name = useMapSwitch(box.id)?.name ?? box.id;
  const settled = useWorkbench((state) => rootColours(state, box.id));
  const shownTrees = useWorkbench((state) => state.shownTrees);
  const marks =
    useInstant(({ picture }) => rootColours({ solution: picture, shownTrees, lens: 'Break' }, box.id)) ?? settled;
  const chosen = useWorkbench((state) => chosenAs(state, box.id));
  return <FarBox {...{ box, marks, chosen, name }} />;
}

interface FarProps {
  readonly box: Box;
  /** The strand colours of the trees that it is root of, with commas between. */
  readonly marks: string;
  readonly chosen: string;
  readonly name: string;
}

function FarBox({ box, marks, chosen, name }: FarProps) {
  return (
    <div
      className={`${styles.box} ${styles.boxFar} ${chosen ? styles.boxSelected : ''} ${chosen === 'alone' ? styles.boxAlone : ''} ${marks === '' ? '' : styles.boxRoot}`}
      style={{ width: box.width, height: box.height }}
      data-switch={box.id}
    >
      <Name box={box} name={name} />
      {marks !== '' && (
        <span className={styles.farMarks}>
          {marks.split(',').map((colour) => (
            <Knot key={colour} colour={colour} />
          ))}
        </span>
      )}
    </div>
  );
}

function NearSwitch({ box }: { readonly box: Box }) {
  const sw = useMapSwitch(box.id);
  const settled = useWorkbench((state) => figuresKey(state, box.id));
  const shownTrees = useWorkbench((state) => state.shownTrees);
  const figures = readFigures(
    useInstant(({ picture }) => figuresKey({ solution: picture, shownTrees, lens: 'Break' }, box.id)) ?? settled,
  );
  const selected = useWorkbench(({ selection }) => isSelected(selection, { kind: 'switch', switch: box.id }));
  const alone = useWorkbench(({ selection }) => selected && selection?.kind !== 'several');
  const cabling = useWorkbench((state) => state.lens === 'Cable');
  if (!sw) return null;
  const figured = box.figures && figures.every((f) => widthOf(f) <= (box.width - 6) / Math.min(2, figures.length));
  return (
    <div
      className={`${styles.box} ${selected ? styles.boxSelected : ''} ${alone ? styles.boxAlone : ''} ${sw.tier === 'access' ? '' : styles.boxStrong} ${sw.stack ? styles.boxStack : ''} ${sw.up ? '' : styles.boxDead}`}
      style={{ width: box.width, height: box.height }}
      data-switch={box.id}
    >
      <div
        className={styles.boxText}
        style={{ top: box.rims.top, bottom: box.rims.bottom, left: box.beside, right: box.beside }}
      >
        <Name box={box} name={sw.name ?? sw.id} />
        {!sw.up && <span className={styles.figure}>no power</span>}
        {sw.up && !runsTrees(sw) && <span className={styles.figure}>no spanning tree</span>}
        <span className={styles.figures} hidden={!figured}>
          {figures.map((f) => (
            <span
              key={f.label}
              className={styles.figure}
              style={{ color: f.colour }}
              title={`root path cost in ${f.label || 'the common tree'}${f.cost.includes('/') ? ': outside of regions, and inside of this one' : ''}`}
            >
              {f.mark === 'K' && <Knot colour={f.colour} title={`root of ${f.label}`} />}
              {f.mark === 'L' && <Loop colour={f.colour} title={`standby root of ${f.label}`} />}
              {f.cost}
            </span>
          ))}
        </span>
      </div>
      {!figured && figures.some((f) => f.mark === 'K') && (
        <span className={styles.farMarks}>
          {figures.map((f) => f.mark === 'K' && <Knot key={f.label} colour={f.colour} title={`root of ${f.label}`} />)}
        </span>
      )}
      {box.attachments.map(
        (attachment) =>
          box.labels[attachment.side] &&
          !isSheafEnd(attachment.port) && <PortLabel key={attachment.port} id={box.id} attachment={attachment} />,
      )}
      <HostList box={box} />
      {cabling && <FreePorts sw={sw} side={box.hostSide === 'top' ? 'bottom' : 'top'} />}
    </div>
  );
}

/** The port's label just inside the border, a button that selects the port; in the Cable view its cable's end can be pulled to another port. */
function PortLabel({ id, attachment: { port, side, at } }: { readonly id: SwitchId; readonly attachment: Attachment }) {
  const store = useWorkbenchStore();
  const cabling = useWorkbench((state) => state.lens === 'Cable');
  const { start } = useCableDrag();
  const shift = {
    left: 'translate(3px,-50%)',
    right: 'translate(calc(-100% - 3px),-50%)',
    top: 'translate(-50%,1px)',
    bottom: 'translate(-50%,calc(-100% - 1px))',
  }[side];
  return (
    <button
      type="button"
      tabIndex={-1}
      className={`${styles.port} ${cabling ? 'nodrag nopan' : ''}`}
      style={{ left: at.x, top: at.y, transform: shift }}
      data-plug={port}
      aria-label={`${id} port ${port}`}
      title={cabling ? `port ${port}; pull its cable to another port` : `port ${port}`}
      onPointerDown={(event) => {
        const link =
          cabling &&
          store
            .getState()
            .design.links.find(({ a, b }) => [a, b].some((end) => end.switch === id && end.port === port));
        if (link) start({ switch: id, port, link: link.id }, event);
      }}
      onClick={(event) => {
        event.stopPropagation();
        store.getState().pick({ kind: 'port', switch: id, port }, means(event));
      }}
    >
      {port.length > 5 ? `${port.slice(0, 4)}…` : port}
    </button>
  );
}

/** The hosts on a switch, hung from a short cord. */
function HostList({ box: { id, hostSide: side, hosts: room } }: { readonly box: Box }) {
  const all = useWorkbench((state) => state.design.hosts);
  const hosts = all.filter((host) => host.attach.some((at) => at.switch === id));
  const { pick } = useWorkbenchStore().getState();
  const selection = useWorkbench((state) => state.selection);
  if (hosts.length === 0 || room.rows === 0) return null;
  const shown = hosts.length <= room.rows ? hosts : hosts.slice(0, room.rows - 1);
  const portsOf = (host: Host) => host.attach.filter((at) => at.switch === id).map((at) => at.port);
  return (
    <ul
      className={`${styles.hosts} ${side === 'top' ? styles.hostsAbove : styles.hostsBelow}`}
      aria-label={`hosts on ${id}`}
    >
      {shown.map((host) => (
        <li key={host.id}>
          <button
            type="button"
            tabIndex={-1}
            className={`${styles.host} ${isSelected(selection, { kind: 'host', host: host.id }) ? styles.hostSelected : ''}`}
            title={`${host.name ?? host.id}, VLAN ${host.vlan}, port ${portsOf(host).join(' and ')}`}
            onClick={(event) => {
              event.stopPropagation();
              pick({ kind: 'host', host: host.id }, means(event));
            }}
          >
            <span className={styles.hostPort}>{portsOf(host).join('+')}</span> {host.name ?? host.id}{' '}
            <span className={styles.hostVlan}>{host.vlan}</span>
          </button>
        </li>
      ))}
      {shown.length < hosts.length && (
        <li className={styles.hostMore}>
          {shown.length === 0 ? counted(hosts.length, 'host') : `${hosts.length - shown.length} more`}
        </li>
      )}
    </ul>
  );
}
