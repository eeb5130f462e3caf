import type { Metadata } from 'next';
import { GuardsStation } from '@/ui/stations/guards/guards-station';

export const metadata: Metadata = { title: 'Guards' };

export default function Page() {
  return <GuardsStation />;
}
