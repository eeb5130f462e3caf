import type { Metadata } from 'next';
import { FindingsStation } from '@/ui/stations/findings/findings-station';

export const metadata: Metadata = { title: 'Findings' };

export default function Page() {
  return <FindingsStation />;
}
