/** What the store does with a worksheet: it is worked on while all that is computed is hidden. */
import { markWorksheet } from '../../core/analysis/practice/worksheet';
import type { DesignDocument } from './document';
import { PRESENT, type Looking } from './looking';
import type { Workbench, WorkbenchActions, WorkbenchState } from './workbench';
import { leaveWorksheetUrl, readDraft, saveDraft } from './worksheet';

export const worksheetActions = (
  get: () => Workbench,
  set: (state: Partial<WorkbenchState>) => void,
  lookAt: (looking: Looking) => void,
  document: DesignDocument,
): Pick<WorkbenchActions, 'openWorksheet' | 'answer' | 'compareWorksheet' | 'closeWorksheet'> => ({
  openWorksheet(tree) {
    get().closeWorksheet();
    lookAt({ kind: 'worksheet', tree, answers: readDraft(get().id, tree) });
    set({ lens: 'Root', drawer: { tab: 'worksheet', open: true }, advice: null });
  },
  answer(answers) {
    const { looking, id } = get();
    if (looking.kind !== 'worksheet') return;
    saveDraft(id, looking.tree, answers);
    set({ looking: { ...looking, answers } });
  },
  compareWorksheet() {
    const { looking, id } = get();
    if (looking.kind !== 'worksheet') return;
    const { tree, answers } = looking;
    get().closeWorksheet();
    const marked = markWorksheet(document.now().design, tree, answers);
    saveDraft(id, tree, null);
    set({ marked });
    if (get().solution?.trees.some((each) => each.id === tree)) get().showTree(tree, 'alone');
    if (marked.of > 0)
      get().act({
        do: 'keep-worksheet',
        worksheet: { tree, at: new Date().toISOString(), right: marked.right, of: marked.of, answers },
      });
  },
  closeWorksheet() {
    set({ marked: null });
    if (get().looking.kind !== 'worksheet') return;
    leaveWorksheetUrl();
    lookAt(PRESENT);
  },
});
