'use client';
/** The sheet to fill in: what is given on the left, what is to be worked out in fields. */
import Button from '@mui/material/Button';
import { Term } from '../../../ui/Term';
import { memo, useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { CIST, treeInstance, treeName, type SwitchId } from '../../../../core/model/ids';
import { WORKSHEET_ROLES, WORKSHEET_STATES, type Answers } from '../../../../core/model/document';
import { sheetOf, type SheetSwitch } from '../../../../core/analysis/practice/worksheet';
import { useWorkbench, useWorkbenchStore } from '../../../state/context';
import { isSelected, type Item } from '../../../state/selection';
import { withCost, withPort, withRoot } from '../../../state/worksheet';
import { groupText, readWhole } from '../../../ui/words/units';
import styles from './worksheet.module.css';
import { type OpenWorksheet } from '../../../state/looking';
import { Select } from '../../../ui/Select';

export function FillSheet({ tree, answers }: OpenWorksheet) {
  const store = useWorkbenchStore();
  const design = useWorkbench((state) => state.design);
  const sheet = useMemo(() => sheetOf(design, tree), [design, tree]);
  const { filled, all } = progressOf(sheet, answers);
  const { closeWorksheet: aside, compareWorksheet: compare } = store.getState();
  if (sheet.length === 0)
    return (
      <p className={styles.hint}>
        No bridge takes part in {treeName(tree)}: there is nothing to work out.{' '}
        <Button onClick={aside}>Close, keep answers</Button>
      </p>
    );
  return (
    <div className={styles.sheet}>
      <p className={styles.row}>
        <label>
          Root of {treeName(tree)}{' '}
          <Select<SwitchId | ''>
            value={answers.root ?? ''}
            options={[['', '?'], ...sheet.map((sw) => [sw.switch, sw.name.slice(0, 80)] as const)]}
            choose={(id) => store.getState().answer(withRoot(answers, id === '' ? undefined : id))}
          />
        </label>
        <span className={styles.count} role="status">
          {filled} of {all} answers filled in
        </span>
        <Button variant="contained" onClick={compare}>
          Compare
        </Button>
        <Button onClick={aside}>Close, keep answers</Button>
      </p>
      <table className={styles.table} aria-label={`Worksheet for ${treeName(tree)}`}>
        <thead>
          <tr>
            <th scope="col">Switch</th>
            <th scope="col">
              <Term>Bridge ID</Term>
            </th>
            <th scope="col">{tree === CIST ? 'External root path cost' : 'Root path cost'}</th>
            <th scope="col">Port</th>
            <th scope="col">To</th>
            <th scope="col">
              <Term>Cost</Term>
            </th>
            <th scope="col">
              <Term>Port ID</Term>
            </th>
            <th scope="col">
              <Term>Role</Term>
            </th>
            <th scope="col">
              <Term>State</Term>
            </th>
          </tr>
        </thead>
        <tbody>
          {sheet.map((sw) => (
            <SwitchRows key={sw.switch} sw={sw} own={answers.switches[sw.switch]} />
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** How many fields have an answer, of how many. */
export function progressOf(
  sheet: readonly SheetSwitch[],
  answers: Answers,
): { readonly filled: number; readonly all: number } {
  let [filled, all] = [Number(answers.root !== undefined), 1];
  for (const sw of sheet) {
    const own = answers.switches[sw.switch];
    filled += Number(own?.rootPathCost !== undefined);
    all += 1 + 2 * sw.ports.length;
    for (const { port } of sw.ports)
      filled += Number(own?.ports[port]?.role !== undefined) + Number(own?.ports[port]?.state !== undefined);
  }
  return { filled, all };
}

/** Only an instance has master ports. */
const PLAIN_ROLES = WORKSHEET_ROLES.filter((role) => role !== 'master');

const SwitchRows = memo(function SwitchRows({
  sw,
  own,
}: {
  readonly sw: SheetSwitch;
  readonly own: Answers['switches'][string] | undefined;
}) {
  const store = useWorkbenchStore();
  const regional = useWorkbench(({ looking }) => looking.kind === 'worksheet' && (treeInstance(looking.tree) ?? 0) > 0);
  const change = (with_: (answers: Answers) => Answers) => {
    const { looking, answer } = store.getState();
    if (looking.kind === 'worksheet') answer(with_(looking.answers));
  };
  const head = (span: number) => (
    <>
      <th scope="rowgroup" rowSpan={span} className={styles.name} title={sw.name.slice(0, 500)}>
        {sw.name.slice(0, 200)}
      </th>
      <td rowSpan={span} className={styles.mono}>
        {sw.bridgeId}
      </td>
      <td rowSpan={span}>
        <CostField
          name={sw.name}
          value={own?.rootPathCost}
          take={(cost) => change((answers) => withCost(answers, sw.switch, cost))}
        />
      </td>
    </>
  );
  if (sw.ports.length === 0)
    return (
      <tr>
        {head(1)}
        <td colSpan={6}>no cable in this tree</td>
      </tr>
    );
  return sw.ports.map(({ port, to, cost, inside, identifier }, i) => (
    <PortRow key={port} item={{ kind: 'port', switch: sw.switch, port }} first={i === 0}>
      {i === 0 && head(sw.ports.length)}
      <td className={styles.mono}>{port}</td>
      <td className={styles.name} title={to.slice(0, 500)}>
        {to.slice(0, 200)}
      </td>
      <td className={styles.mono} title={inside ? 'counts inside of the region alone' : undefined}>
        {inside ? `(${groupText(cost)})` : groupText(cost)}
      </td>
      <td className={styles.mono}>{identifier}</td>
      <td>
        <Choice
          label={`Role of ${sw.name} port ${port}`}
          value={own?.ports[port]?.role}
          options={regional ? WORKSHEET_ROLES : PLAIN_ROLES}
          take={(role) => change((answers) => withPort(answers, sw.switch, port, { role }))}
        />
      </td>
      <td>
        <Choice
          label={`State of ${sw.name} port ${port}`}
          value={own?.ports[port]?.state}
          options={WORKSHEET_STATES}
          take={(state) => change((answers) => withPort(answers, sw.switch, port, { state }))}
        />
      </td>
    </PortRow>
  ));
});

/** The row of a port; it comes into view when the port is selected on the map. */
function PortRow({
  item,
  first,
  children,
}: {
  readonly item: Item;
  readonly first: boolean;
  readonly children: ReactNode;
}) {
  const selected = useWorkbench((state) => isSelected(state.selection, item));
  const row = useRef<HTMLTableRowElement>(null);
  useEffect(() => {
    if (selected) row.current?.scrollIntoView({ block: 'nearest' });
  }, [selected]);
  return (
    <tr ref={row} className={`${first ? styles.first : ''} ${selected ? styles.chosen : ''}`}>
      {children}
    </tr>
  );
}

interface ChoiceProps<T extends string> {
  readonly label: string;
  readonly value: T | undefined;
  readonly options: readonly T[];
  readonly take: (value: T | undefined) => void;
}

/** A choice that may be left open; a letter picks, as in every list. */
function Choice<T extends string>({ label, value, options, take }: ChoiceProps<T>) {
  return (
    <Select<T | ''>
      label={label}
      value={value ?? ''}
      options={[['', '?'], ...options.map((each) => [each, each] as const)]}
      choose={(to) => take(to === '' ? undefined : to)}
    />
  );
}

/** A whole number that may be left open; what cannot be read is marked, and not taken. */
function CostField({
  name,
  value,
  take,
}: {
  readonly name: string;
  readonly value: number | undefined;
  readonly take: (value: number | undefined) => void;
}) {
  const [text, setText] = useState(value === undefined ? '' : String(value));
  const read = text.trim() === '' ? null : readWhole(text);
  return (
    <input
      className={styles.cost}
      inputMode="numeric"
      value={text}
      placeholder="?"
      aria-label={`Root path cost of ${name}`}
      aria-invalid={read?.ok === false}
      title={read?.ok === false ? read.error : undefined}
      onChange={(event) => {
        setText(event.target.value);
        const cost = event.target.value.trim() === '' ? null : readWhole(event.target.value);
        if (cost === null) take(undefined);
        else if (cost.ok && Number.isSafeInteger(cost.value)) take(cost.value);
      }}
    />
  );
}
