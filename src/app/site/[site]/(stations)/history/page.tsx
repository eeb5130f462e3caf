import type { Metadata } from 'next';
import { HistoryStation } from '@/ui/stations/history/history-station';

export const metadata: Metadata = { title: 'History' };

export default function Page() {
  return <HistoryStation />;
}
