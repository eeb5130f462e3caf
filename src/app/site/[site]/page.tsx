import { redirect } from 'next/navigation';

export default async function Page({ params }: { params: Promise<{ site: string }> }) {
  redirect(`/site/${(await params).site}/segments`);
}
