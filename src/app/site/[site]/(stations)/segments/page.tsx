import type { Metadata } from 'next';
import { SegmentsStation } from '@/ui/stations/segments/segments-station';

export const metadata: Metadata = { title: 'Segments' };

export default function Page() {
  return <SegmentsStation />;
}
