import type { Metadata } from 'next';
import { GearStation } from '@/ui/stations/gear/gear-station';

export const metadata: Metadata = { title: 'Gear & ports' };

export default function Page() {
  return <GearStation />;
}
