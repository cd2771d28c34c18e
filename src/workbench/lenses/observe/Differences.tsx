'use client';
/** Rows of where a network is other than designed, or than predicted: each with its place on the map and a likely reason. */
import type { ReactNode } from 'react';
import type { Difference, Harm } from '../../../core/exchange/observation/compare/difference';
import { namesOf } from '../../../core/model/derive/names';
import type { Design } from '../../../core/model/document';
import { treesName } from '../../../core/model/ids';
import styles from '../../ui/table.module.css';
import room from './observe.module.css';

/** Most that are drawn at once. */
const MOST = 400;

const HARM_WORDS: Readonly<Record<Harm, string>> = {
  silent: 'not heard',
  root: 'another root',
  mode: 'mode or region',
  cable: 'cable or signal',
  path: 'another path',
  bundle: 'members',
  vlan: 'VLANs',
  setting: 'setting',
};

interface Props {
  readonly label: string;
  /** Of the design that the rows name things of. */
  readonly design: Design;
  readonly rows: readonly Difference[];
  /** What stands in the column of what was expected. */
  readonly expected: string;
  readonly place: (row: Difference, text: string) => ReactNode;
  /** A last cell; null: none. */
  readonly does: ((row: Difference) => ReactNode) | null;
}

export function Differences({ label, design, rows, expected, place, does }: Props) {
  const names = namesOf(design);
  const whereText = ({ switch: sw, port }: Difference): string =>
    sw === null ? 'outside of the design' : port === null ? names.switch(sw) : names.end({ switch: sw, port });
  return (
    <div className={room.scroll}>
      <table className={room.differences} aria-label={label}>
        <thead>
          <tr>
            <th scope="col">Where</th>
            <th scope="col">Harm</th>
            <th scope="col">What</th>
            <th scope="col">{expected}</th>
            <th scope="col">There</th>
            <th scope="col">Likely why</th>
            {does && (
              <th scope="col">
                <span className={room.unseen}>Take over</span>
              </th>
            )}
          </tr>
        </thead>
        <tbody>
          {rows.slice(0, MOST).map((each, i) => (
            <tr key={i}>
              <th scope="row">{place(each, whereText(each))}</th>
              <td>{HARM_WORDS[each.harm]}</td>
              <td>
                {each.what}
                {each.trees.length > 0 && `, ${treesName(each.trees)}`}
              </td>
              <td>{each.designed}</td>
              <td>{each.observed}</td>
              <td>{each.why}</td>
              {does && <td className={room.does}>{does(each)}</td>}
            </tr>
          ))}
        </tbody>
      </table>
      {rows.length > MOST && (
        <p className={styles.empty}>and {rows.length - MOST} more; knot-path compare lists all.</p>
      )}
    </div>
  );
}
