import { FindingsStation } from '@/ui/stations/findings/findings-station';

export default function Page() {
  return <FindingsStation />;
}
