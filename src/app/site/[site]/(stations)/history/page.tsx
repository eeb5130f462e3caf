import { HistoryStation } from '@/ui/stations/history/history-station';

export default function Page() {
  return <HistoryStation />;
}
