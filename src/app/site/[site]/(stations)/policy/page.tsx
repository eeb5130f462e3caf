import { PolicyStation } from '@/ui/stations/policy/policy-station';

export default function Page() {
  return <PolicyStation />;
}
