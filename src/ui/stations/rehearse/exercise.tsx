'use client';

import { useSite } from '../../session/context';
import { ExerciseReport } from './exercise-report';
import { SetExercise } from './set-exercise';
import { Solving } from './solving';

/** Faults to find: sets an exercise, is where it is solved, and shows what became of it. */
export function ExercisePanel() {
  const exercise = useSite((state) => state.exercise);
  if (!exercise) return <SetExercise />;
  return exercise.report ? (
    <ExerciseReport exercise={exercise} report={exercise.report} />
  ) : (
    <Solving exercise={exercise} />
  );
}
