import { RehearseStation } from '@/ui/stations/rehearse/rehearse-station';

export default function Page() {
  return <RehearseStation />;
}
