import { BriefStation } from '@/ui/stations/brief/brief-station';

export default function Page() {
  return <BriefStation />;
}
