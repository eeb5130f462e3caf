import { useState } from 'react';
import { isTold } from './attempt';
import { useSession } from './context';

/** Says that boxes are set up as the plan is now; why that could not be said. */
export function useRecordPlanned() {
  const session = useSession();
  const [problem, setProblem] = useState('');
  const record = async (devices: readonly string[]) => {
    try {
      setProblem('');
      await session.recordPlanned(devices);
    } catch (error) {
      if (!isTold(error)) throw error;
      setProblem(`Nothing was recorded: ${error.message} Try again when everything is saved.`);
    }
  };
  return { record, problem };
}
