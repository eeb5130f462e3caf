export { socketGroups } from './cover';
export { furtherTest, furtherTrials, trialsAround } from './further';
export type { SiteTest, TestPlan, TestRound } from './site-test';
export { siteTests } from './site-tests';
