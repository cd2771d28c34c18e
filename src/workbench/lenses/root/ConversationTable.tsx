'use client';
/** What bridges say to each other over each cable, and what becomes of it: what comes back to its sender or rides through others first. */
import type { GridColDef } from '@mui/x-data-grid';
import { useEffect, useMemo } from 'react';
import type { Conversation } from '../../../core/analysis/dialects/heard';
import { useAsk } from '../../state/ask';
import { useFollowing, useWorkbenchStore } from '../../state/context';
import { askConversations } from '../../state/questions';
import type { Item } from '../../state/selection';
import styles from '../../ui/table.module.css';
import { counted } from '../../../core/base/words';
import { Asking } from '../shared/Asking';
import { ItemTable } from '../shared/ItemTable';

interface Row extends Conversation {
  readonly id: string;
  /** `RST, tagged`. */
  readonly how: string;
  /** `stairs-a, stairs-b and back`. */
  readonly rides: string;
}

const COLUMNS: GridColDef<Row>[] = [
  { field: 'at', headerName: 'Comes in at', width: 100 },
  { field: 'from', headerName: 'From', width: 100 },
  { field: 'trees', headerName: 'Trees', width: 105 },
  { field: 'how', headerName: 'BPDUs', width: 110 },
  { field: 'rides', headerName: 'Rides through', flex: 1, minWidth: 172 },
  { field: 'fate', headerName: 'What becomes of it', width: 198 },
];

const itemOf = ({ switch: sw, port }: Row): Item => ({ kind: 'port', switch: sw, port });

export function ConversationTable() {
  const design = useFollowing((state) => state.design);
  const { status, stop } = useAsk(useMemo(() => askConversations(design), [design]));
  const rows = useMemo(() => (status.kind === 'found' ? rowsOf(status.value) : []), [status]);
  const store = useWorkbenchStore();
  useEffect(() => {
    store.setState({ rides: rows.filter(({ ride }) => ride.length > 0) });
    return () => store.setState({ rides: null });
  }, [store, rows]);
  if (status.kind !== 'found') return <Asking status={status} stop={stop} what="Following what bridges say" />;
  const [back, ride] = [
    rows.filter(({ returns }) => returns).length,
    rows.filter(({ returns, through }) => !returns && through !== '').length,
  ];
  return (
    <>
      <p className={styles.summary}>
        {rows.length === 0
          ? 'No bridge speaks to another one.'
          : back + ride === 0
            ? `${counted(rows.length, 'conversation')}: every bridge hears its neighbours, and nobody rides through anybody.`
            : `Of ${counted(rows.length, 'conversation')} ${back} ${back === 1 ? 'comes' : 'come'} back to the sender, and ${ride} ${ride === 1 ? 'rides' : 'ride'} through switches that have no part in them.`}
      </p>
      <ItemTable
        rows={rows}
        columns={COLUMNS}
        itemOf={itemOf}
        label="Conversations"
        what="conversations"
        example="stairs passed"
      />
    </>
  );
}

/** The standard's own needs no more said; those for trees of VLANs have a tag, or are for the VLAN that goes without. */
const FORMS: Record<Conversation['group'], string> = { standard: '', tagged: ', tagged', untagged: ', per VLAN' };

const rowsOf = (all: readonly Conversation[]): Row[] =>
  all.map((each, i) => ({
    ...each,
    id: String(i),
    how: `${each.kind}${FORMS[each.group]}`,
    rides: each.returns ? `${each.riding} and back` : each.riding,
  }));
