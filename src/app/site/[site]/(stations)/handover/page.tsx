import { HandoverStation } from '@/ui/stations/handover/handover-station';

export default function Page() {
  return <HandoverStation />;
}
