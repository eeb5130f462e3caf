export { type SiteTest, type TestPlan, type TestRound, siteTests } from './site-tests';
