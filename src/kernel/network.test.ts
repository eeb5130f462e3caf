import { execFileSync, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { readPlanFile } from '../core/formats';
import { laidWithQuestions } from '../core/lab';
import type { Plan } from '../core/plan';
import { askAll, questionText } from '../core/rehearse';
import { networkArchive } from '../server/documents/network';
import { namespacesMissing } from './namespaces';

/** The archive of a plan as a running network: built by its own script on this kernel, and asked there. */

const missing = namespacesMissing();
const onKernel = missing === null ? test : test.skip;
const TODAY = '2026-12-01';
/** The programs of Debian's packages, before any that stand in front of them here. */
const PATH = `/usr/sbin:/usr/bin:/sbin:/bin:${process.env.PATH}`;

let folder: string;
beforeAll(() => {
  folder = fs.mkdtempSync(path.join(os.tmpdir(), 'dianome-network-'));
});
afterAll(() => fs.rmSync(folder, { recursive: true }));
const demo = (name: string): Plan => readPlanFile(fs.readFileSync(`demo/${name}.json`, 'utf8'));

/** Unpacked by another program, with the modes that are written in it. */
function unpacked(plan: Plan, name: string): string {
  const at = path.join(folder, name);
  fs.mkdirSync(at);
  fs.writeFileSync(`${at}.zip`, networkArchive(plan, TODAY));
  execFileSync('unzip', ['-q', `${at}.zip`, '-d', at]);
  return path.join(at, 'network');
}

onKernel.each(['1-row-house', '2-clinic', '3-creamery'])(
  '%s stands, and answers every question as the probe does',
  (name) => {
    const plan = demo(name);
    const at = unpacked(plan, name);
    const lab = `dn${process.pid}${name.slice(0, 1)}`;
    const env = { ...process.env, PATH, LAB: lab, RUN: path.join(folder, `${name}.run`) };
    const run = (...words: string[]) => spawnSync('./lab.sh', words, { cwd: at, env, encoding: 'utf8' });
    expect(run('ask').stderr).toContain('It does not stand');
    try {
      const up = run('up');
      expect([up.status, up.stderr]).toEqual([0, '']);
      expect(up.stdout).toMatch(/^\d+ hosts and \d+ cables stand\.$/m);
      expect(run('up').stderr).toContain('It stands already');
      const { asked, left } = laidWithQuestions(plan, TODAY);
      const said = run('ask');
      expect([said.status, said.stdout.split('\n').filter((line) => line.startsWith('DIFFERS'))]).toEqual([
        0,
        [],
      ]);
      expect(said.stdout).toContain(`${asked.length} asked, 0 differ.`);
      // What is asked is what is kept, and what comes of it is what the probe says.
      const kept = askAll(plan, TODAY);
      expect(asked.length + left.length).toBe(kept.length);
      for (const { text, answers } of asked) {
        const { answer } = kept.find(({ question }) => questionText(plan, question) === text)!;
        expect([text, answers]).toEqual([text, answer.delivered]);
        expect(said.stdout).toContain(`as-expected: ${text}: answers ${answers ? 'yes' : 'no'}`);
      }
      expect(asked.length).toBeGreaterThan(4);
    } finally {
      run('down');
    }
    expect(execFileSync('ip', ['netns', 'list'], { encoding: 'utf8' })).not.toContain(`${lab}-`);
  },
  300_000,
);

onKernel(
  'a question that is answered otherwise than the plan says is told, and the script fails',
  () => {
    const at = unpacked(demo('2-clinic'), 'wrong');
    const questions = path.join(at, 'questions.tsv');
    const [first, ...others] = fs.readFileSync(questions, 'utf8').split('\n');
    fs.writeFileSync(questions, [first!.replace('\tyes\tyes\t', '\tno\tno\t'), ...others].join('\n'));
    const env = { ...process.env, PATH, LAB: `dn${process.pid}w`, RUN: path.join(folder, 'wrong.run') };
    const run = (...words: string[]) => spawnSync('./lab.sh', words, { cwd: at, env, encoding: 'utf8' });
    try {
      run('up');
      const said = run('ask');
      expect([said.status, said.stdout.split('\n')[0]]).toEqual([1, expect.stringMatching(/^DIFFERS: /)]);
      // A guest gets an address of the segment that it is plugged into.
      expect(run('join', '20').stdout).toMatch(/10\.20\.20\.1\d\d\/24/);
      expect(run('join', '999').stderr).toContain('There is no socket in VLAN 999');
    } finally {
      run('down');
    }
  },
  300_000,
);
