import { today } from '@/today';
import { nftRuleset } from '@/core/formats';
import { siteOf, badInput } from '@/core/plan';
import { download } from '../../../_lib/download';
import { handle } from '../../../_lib/handle';
import { type SiteParams, currentPlan } from '../../../_lib/plans';

export const dynamic = 'force-dynamic';

/** The nftables ruleset of one gateway, ?device=… */
export const GET = handle<SiteParams>(async (request, { site }) => {
  const { plan } = await currentPlan(site);
  const id = new URL(request.url).searchParams.get('device') ?? '';
  const device = plan.device.get(id);
  if (!device) throw badInput(`“${id}” is no device of this site; name its gateway with ?device=.`, 'device');
  const text = nftRuleset(plan, device, today());
  return download(text, 'text/plain; charset=utf-8', `${siteOf(plan).name} ${device.name}`, '.nft');
});
