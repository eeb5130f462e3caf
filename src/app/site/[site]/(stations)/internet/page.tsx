import { InternetStation } from '@/ui/stations/internet/internet-station';

export default function Page() {
  return <InternetStation />;
}
