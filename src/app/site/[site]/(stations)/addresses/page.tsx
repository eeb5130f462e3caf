import type { Metadata } from 'next';
import { AddressesStation } from '@/ui/stations/addresses/addresses-station';

export const metadata: Metadata = { title: 'Addresses' };

export default function Page() {
  return <AddressesStation />;
}
