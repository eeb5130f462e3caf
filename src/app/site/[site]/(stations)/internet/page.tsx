import type { Metadata } from 'next';
import { InternetStation } from '@/ui/stations/internet/internet-station';

export const metadata: Metadata = { title: 'Internet side' };

export default function Page() {
  return <InternetStation />;
}
