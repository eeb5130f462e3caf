import type { Metadata } from 'next';
import { PolicyStation } from '@/ui/stations/policy/policy-station';

export const metadata: Metadata = { title: 'Who may talk' };

export default function Page() {
  return <PolicyStation />;
}
