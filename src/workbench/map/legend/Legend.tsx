'use client';
/** What the signs on the map mean, in the view that is open. */
import type { ComponentType } from 'react';
import { useWorkbench } from '../../state/context';
import { strandStyle } from '../../ui/strandStyle';
import type { GlyphSign } from '../glyphs/glyph';
import { BarredSquare } from '../glyphs/barredSquare';
import { GLYPHS, glyphFor } from '../glyphs/glyphs';
import { GuardBadge } from '../glyphs/guardBadge';
import { Knot, Loop } from '../knots';
import type { CourseEnd } from '../run';
import { BAND } from '../sheaf';
import styles from '../map.module.css';
import { Sign, SIGN, SignText } from './Sign';

/** A strand comes from the left and ends at a box on the right. */
const MIDDLE = SIGN.height / 2;
const END: CourseEnd = { at: { x: SIGN.width - 4, y: MIDDLE }, out: { x: -1, y: 0 } };
const { colour: COLOUR } = strandStyle(0);

export function Legend({ Signs }: { readonly Signs?: ComponentType | undefined }) {
  const lens = useWorkbench((state) => state.lens);
  return (
    <ul className={styles.legend} aria-label="Signs on the map">
      {lens === 'Cable' ? <CableSigns /> : <TreeSigns running={lens === 'Break'} />}
      <Sign says="dotted cable with barred squares: no signal, the link is cut or a port is down">
        <path d={`M4 ${MIDDLE}H${END.at.x}`} stroke="var(--cable)" strokeWidth={1.3} strokeDasharray="2 5" />
        <BarredSquare end={END} colour="var(--ink-soft)" />
      </Sign>
      <Sign says="hexagon at a barred square: the port is shut, B by BPDU guard, P by a loop probe">
        <path d={`M4 ${MIDDLE}H${END.at.x}`} stroke="var(--cable)" strokeWidth={1.3} strokeDasharray="2 5" />
        <BarredSquare end={END} colour="var(--ink)" />
        <GuardBadge at={{ x: 22, y: MIDDLE }} sign={{ letter: 'B', acts: true }} />
      </Sign>
      <Sign says="closed band across links: a bundle that is up">
        <Links />
        <path d="M28 3V17" stroke="var(--ink)" strokeWidth={7} strokeLinecap="round" />
      </Sign>
      <Sign says="open band across links: a bundle that is down">
        <Links />
        <path d="M28 3V17" stroke="var(--ink)" strokeWidth={7} strokeLinecap="round" />
        <path d="M28 3V17" stroke="var(--paper)" strokeWidth={3.5} strokeLinecap="round" />
      </Sign>
      {Signs && <Signs />}
      <Sign says="box with a double edge: a stack, several switches that are one">
        <rect x={10} y={2} width={36} height={16} rx={6} stroke="var(--ink)" fill="var(--raised)" />
        <rect x={12.5} y={4.5} width={31} height={11} rx={4} stroke="var(--ink)" fill="none" />
      </Sign>
      <Sign says="line around two boxes: a pair, two switches that act as one; dashed where they have come apart">
        <rect x={6} y={0.7} width={44} height={18.6} rx={3} stroke="var(--ink-soft)" fill="none" />
        <rect x={9} y={4} width={15} height={12} rx={3} stroke="var(--ink)" fill="var(--raised)" />
        <rect x={32} y={4} width={15} height={12} rx={3} stroke="var(--ink)" fill="var(--raised)" />
      </Sign>
      <Sign says="box on another box: a folded group of switches">
        <rect x={13} y={4} width={34} height={14} rx={5} stroke="var(--ink-soft)" fill="var(--paper)" />
        <rect x={10} y={1} width={34} height={14} rx={5} stroke="var(--ink)" strokeWidth={1.6} fill="var(--raised)" />
      </Sign>
      <Sign says="wide pale band: all links between a folded group and another box">
        <path d={`M4 ${MIDDLE}H52`} stroke="var(--cable)" strokeOpacity={0.45} strokeWidth={BAND} />
        <path d={`M4 ${MIDDLE}H52`} stroke={COLOUR} strokeWidth={3} />
      </Sign>
    </ul>
  );
}

const Links = () => <path d="M4 6H52M4 14H52" stroke="var(--rule-strong)" strokeWidth={2} />;

function CableSigns() {
  return (
    <>
      {(
        [
          [1.5, 'thin cable: below 1 Gb/s'],
          [2.5, 'cable: 1 Gb/s'],
          [4.5, 'thick cable: 10 Gb/s and more'],
        ] as const
      ).map(([width, says]) => (
        <Sign key={says} says={says}>
          <path d={`M4 ${MIDDLE}H52`} stroke="var(--rule-strong)" strokeWidth={width} />
        </Sign>
      ))}
      <Sign says="dotted outline of a port, beside the table of neighbours: reported otherwise than drawn">
        <path d={`M4 ${MIDDLE}H52`} stroke="var(--rule-strong)" strokeWidth={2.5} />
        <rect
          x={34}
          y={3}
          width={18}
          height={14}
          rx={4}
          stroke="var(--accent)"
          strokeWidth={1.5}
          strokeDasharray="3 3"
        />
      </Sign>
      <Sign says="figure at the edge of a switch: a port; of the selected switch, also its free ones">
        <path d={`M52 0V20`} stroke="var(--ink)" strokeWidth={2} />
        <SignText x={44} text="3" />
      </Sign>
    </>
  );
}

function TreeSigns({ running }: { readonly running: boolean }) {
  return (
    <>
      <Sign says="knot: root of the tree">
        <g transform="translate(14 2)">
          <Knot colour={COLOUR} />
        </g>
      </Sign>
      <Sign says="untied loop: standby root, next in the election">
        <g transform="translate(14 2)">
          <Loop colour={COLOUR} />
        </g>
      </Sign>
      <Sign says="figure under a name: root path cost in that tree">
        <SignText x={46} text="22 000" colour={COLOUR} />
      </Sign>
      {GLYPHS.flatMap(({ signs }) => signs)
        .filter(({ at }) => running || at.state === undefined)
        .map((sign) => (
          <EndSign key={sign.says} {...sign} />
        ))}
      <Sign says="hexagon in place of a letter: the port is held, R by root guard, L by loop guard, V since VLANs differ, W since their roots do, O since the switch hears its own BPDUs there">
        <path d="M4 10H28" stroke={COLOUR} strokeWidth={1.7} />
        <GuardBadge at={{ x: 24, y: MIDDLE }} sign={{ letter: 'R', acts: true }} />
      </Sign>
      <Sign says="thick strand: the link carries the tree’s frames; thin: one of its ends blocks">
        <path d="M4 6H52" stroke={COLOUR} strokeWidth={3} />
        <path d="M4 14H52" stroke={COLOUR} strokeWidth={1.7} />
      </Sign>
      <Sign says="strand that ends half-way: the other end does not carry the VLAN">
        <path d={`M4 ${MIDDLE}H52`} stroke="var(--cable)" strokeWidth={1.3} />
        <path d={`M4 ${MIDDLE}H26`} stroke={COLOUR} strokeWidth={1.7} />
      </Sign>
      <Sign says="two letters: the role before the last change, and now">
        <rect x={12} y={2} width={32} height={16} rx={3} fill={COLOUR} />
        <SignText x={40} text="A→R" colour="var(--paper)" />
      </Sign>
    </>
  );
}

function EndSign({ at, says }: GlyphSign) {
  const glyph = glyphFor(at);
  const width = at.role === 'alternate' || at.disputed ? 1.7 : 3;
  return (
    <Sign says={says}>
      <path d={`M4 ${MIDDLE}H${END.at.x - glyph.trim}`} stroke={COLOUR} strokeWidth={width} />
      {glyph.draw({ ...at, end: END, colour: COLOUR, width })}
      <path d={`M${END.at.x + 1} 0V20`} stroke="var(--ink)" strokeWidth={2} />
    </Sign>
  );
}
