import { SegmentsStation } from '@/ui/stations/segments/segments-station';

export default function Page() {
  return <SegmentsStation />;
}
