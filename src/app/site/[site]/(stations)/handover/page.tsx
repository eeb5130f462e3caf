import type { Metadata } from 'next';
import { HandoverStation } from '@/ui/stations/handover/handover-station';

export const metadata: Metadata = { title: 'Hand over' };

export default function Page() {
  return <HandoverStation />;
}
