import { SiteList } from '@/ui/sites/site-list';

export default function Page() {
  return <SiteList />;
}
