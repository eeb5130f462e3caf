import type { Metadata } from 'next';
import { RehearseStation } from '@/ui/stations/rehearse/rehearse-station';

export const metadata: Metadata = { title: 'Rehearse' };

export default function Page() {
  return <RehearseStation />;
}
