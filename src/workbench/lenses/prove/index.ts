import { table, type LensManifest } from '../manifest';
import { findings, history, moved } from '../shared/tables';
import { loadable } from '../../ui/loadable';
import { HarmBands, HarmTags } from './Harm';
import { IntentLine } from './IntentLine';

export const prove: LensManifest = {
  lens: 'Prove',
  purpose: 'What must hold, on each edit and whatever fails.',
  tables: [
    table('intents', 'Intents', () => import('./IntentList').then((m) => m.IntentList), {
      offer: 'Intents, and whether they hold',
      count: (state) => state.design.intents.length,
    }),
    table('every-failure', 'Every failure', () => import('./EveryFailureTable').then((m) => m.EveryFailureTable), {
      offer: 'What every single failure does',
      tall: true,
    }),
    table('runs', 'Outages', () => import('./RunsTable').then((m) => m.RunsTable), {
      offer: 'How long each failure cuts hosts off',
      tall: true,
    }),
    table('change-plan', 'Change plan', () => import('./ChangePlanTable').then((m) => m.ChangePlanTable), {
      offer: 'Change plan: the steps from an earlier state to this one',
      tall: true,
    }),
    table('exercise', 'Exercise', () => import('./ExerciseTable').then((m) => m.ExerciseTable), {
      offer: 'Exercise: what is asked, and how far it is',
    }),
    moved,
    findings,
    history,
  ],
  Above: IntentLine,
  layers: { under: HarmBands, over: HarmTags },
  Signs: loadable('the signs of prove', () => import('./Signs').then((m) => m.Signs)),
};
