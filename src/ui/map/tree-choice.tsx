'use client';

import { type Grown, treeTitle } from '@/core/model/tree';
import { Choice } from '../parts/choice';
import { treeKey } from './layers';

/** Which of the plan's trees is looked at. */
export function TreeChoice({
  grown,
  tree,
  onChoose,
}: {
  grown: readonly Grown[];
  tree: Grown;
  onChoose: (key: string) => void;
}) {
  return (
    <Choice
      lined
      label="Which tree"
      value={treeKey(tree)}
      options={grown.map((item) => ({ value: treeKey(item), label: treeTitle(item) }))}
      onChoose={onChoose}
    />
  );
}
