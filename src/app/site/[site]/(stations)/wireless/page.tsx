import type { Metadata } from 'next';
import { WirelessStation } from '@/ui/stations/wireless/wireless-station';

export const metadata: Metadata = { title: 'Wireless' };

export default function Page() {
  return <WirelessStation />;
}
