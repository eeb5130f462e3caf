import { AddressesStation } from '@/ui/stations/addresses/addresses-station';

export default function Page() {
  return <AddressesStation />;
}
