'use client';
/** Makes a new design to practise on and opens it with its trees hidden. */
import Button from '@mui/material/Button';
import { useState } from 'react';
import { leanDesign } from '../../../../core/model/derive/write';
import {
  PRACTICE_LEVELS,
  PRACTICE_TEXT,
  practiceDesign,
  practiceTree,
  type PracticeLevel,
} from '../../../../core/analysis/practice/practice';
import { api } from '../../../state/api';
import { worksheetPath } from '../../../state/worksheet';
import styles from './worksheet.module.css';

const anyNumber = (): number => Math.floor(Math.random() * 1_000_000);

export function PracticeChoice() {
  const [trouble, setTrouble] = useState<string | null>(null);
  const make = async (level: PracticeLevel) => {
    const design = practiceDesign(level, anyNumber());
    if (!design.ok) return setTrouble(design.error);
    const created = await api.create({ do: 'import', document: leanDesign(design.value) });
    if (!created.ok) return setTrouble(`The practice network was not made. ${created.error.message}`);
    window.location.assign(worksheetPath(created.value.id, practiceTree(level)));
  };
  return (
    <>
      <ul className={styles.levels} aria-label="Practice networks">
        {PRACTICE_LEVELS.map((level) => (
          <li key={level}>
            <Button variant="outlined" onClick={() => void make(level)}>
              Level {level}
            </Button>
            <span>{PRACTICE_TEXT[level]}</span>
          </li>
        ))}
      </ul>
      {trouble && (
        <p className={styles.wrong} role="alert">
          {trouble}
        </p>
      )}
    </>
  );
}
