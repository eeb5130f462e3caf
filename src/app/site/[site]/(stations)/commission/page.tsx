import type { Metadata } from 'next';
import { CommissionStation } from '@/ui/stations/commission/commission-station';

export const metadata: Metadata = { title: 'Commission' };

export default function Page() {
  return <CommissionStation />;
}
