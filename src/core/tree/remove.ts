import type { Draft } from '../plan/draft';
import { instancesOf, bridgeRecordOf, treePortRecordsOf } from './settings';

/** What goes of trees and rings with a device and its ports. */
export function removeTreesOf(draft: Draft, device: string, ports: ReadonlySet<string>): void {
  for (const port of ports)
    for (const { id } of treePortRecordsOf(draft.plan, port)) draft.remove('treePort', id);
  for (const { id } of instancesOf(draft.plan, device)) draft.remove('instance', id);
  const own = bridgeRecordOf(draft.plan, device);
  if (own) draft.remove('bridge', own.id);
}
