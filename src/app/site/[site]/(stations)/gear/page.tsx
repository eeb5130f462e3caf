import { GearStation } from '@/ui/stations/gear/gear-station';

export default function Page() {
  return <GearStation />;
}
