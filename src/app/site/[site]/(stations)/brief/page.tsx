import type { Metadata } from 'next';
import { BriefStation } from '@/ui/stations/brief/brief-station';

export const metadata: Metadata = { title: 'Brief' };

export default function Page() {
  return <BriefStation />;
}
