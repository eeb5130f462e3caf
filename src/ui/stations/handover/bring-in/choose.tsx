'use client';

import dynamic from 'next/dynamic';
import { useState } from 'react';
import { Refusal } from '@/core/plan';
import { FileButton } from '../../../parts/file-button';
import type { ChosenFile } from './read-tables';

const BringIn = dynamic(() => import('./bring-in').then((m) => m.BringIn));

/** Chooses a table or a file of another program, and shows what would come of it. */
export function ChooseTable({ onProblem }: { onProblem: (problem: string) => void }) {
  const [chosen, setChosen] = useState<ChosenFile | null>(null);
  const [reading, setReading] = useState(false);
  const choose = async (file: File) => {
    onProblem('');
    setReading(true);
    try {
      const { readTables } = await import('./read-tables');
      setChosen(await readTables(file));
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      onProblem(`${file.name}: ${error.message} Nothing was changed.`);
    } finally {
      setReading(false);
    }
  };
  return (
    <>
      <FileButton
        label={reading ? 'Reading…' : 'Choose a table'}
        accept=".csv,.tsv,.txt,.xlsx,.conf,.json,.nft,.zone,.hosts,text/*"
        busy={reading}
        onChoose={(file) => void choose(file)}
      />
      {chosen && <BringIn chosen={chosen} onClose={() => setChosen(null)} />}
    </>
  );
}
