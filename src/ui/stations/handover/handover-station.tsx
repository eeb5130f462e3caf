'use client';

import Link from 'next/link';
import { useState } from 'react';
import { FILE_LIMIT, routes } from '@/contract';
import { readPlanFile } from '@/core/formats';
import { type Call, Refusal, encodePlan } from '@/core/plan';
import { pathOf } from '../../session/api';
import { usePlan, useSession } from '../../session/context';
import { countOpen, useFindings } from '../../session/open-findings';
import { useView } from '../../session/view';
import { FileButton } from '../../parts/file-button';
import { StationHead } from '../../parts/station-head';
import { ChooseTable } from './bring-in/choose';
import { FilesForPrograms } from './files-for-programs';
import { Item } from './item';
import { readFile } from './read-file';

/** Take away: the schedule as a page and as CSV, the plan as a file. Bring in: a plan file as a reviewed change. */
export function HandoverStation() {
  const plan = usePlan();
  const session = useSession();
  const set = useView((state) => state.set);
  const counts = countOpen(useFindings());
  const [problem, setProblem] = useState('');
  const site = session.siteId;
  const { files } = routes;
  const bringIn = async (file: File) => {
    try {
      const read = readPlanFile(await readFile(file));
      const call: Call = {
        operation: 'bringInPlan',
        input: { file: file.name.slice(0, 200), plan: encodePlan(read) },
      };
      setProblem('');
      if (session.preview(call).steps.length === 0)
        return setProblem(`${file.name} holds exactly this plan; nothing would change.`);
      set({ review: { title: 'Bring in a plan', call, accept: 'Take these changes' } });
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      setProblem(`${file.name}: ${error.message} Nothing was changed.`);
    }
  };
  return (
    <>
      <StationHead title="Hand over" about="the schedule and the plan, to take away and to bring in" />
      {counts.stop > 0 && (
        <p className="mb-3 border-l-4 border-stop px-3">
          {counts.stop} open stop{counts.stop === 1 ? '' : 's'}: this network would not work as planned. See
          Findings before you hand it over.
        </p>
      )}
      <h3 className="pb-1 font-bold">Take away</h3>
      <ul className="max-w-[760px]">
        <Item
          what="The book of this site"
          about="everything for whoever owns it: in plain words, maps, schedules, tests, what to do when; as a page and as a PDF"
        >
          <Link className="button button-primary" href={`/site/${session.siteId}/book`}>
            Open the book
          </Link>
        </Item>
        <Item
          what="Address schedule to print"
          about="every subnet with its gateway, pools and fixed addresses"
        >
          <Link className="button" href={`/site/${session.siteId}/schedule`}>
            Open the page
          </Link>
        </Item>
        <Item what="Address schedule as CSV" about="one row per fixed address, pool and exclusion">
          <a className="button" href={pathOf(files.addresses, { site })} download>
            Download CSV
          </a>
        </Item>
        <Item
          what="Port schedule to print"
          about="every box with what each port carries and where it leads, by place"
        >
          <Link className="button" href={`/site/${session.siteId}/ports`}>
            Open the page
          </Link>
        </Item>
        <Item what="Port schedule as CSV" about="one row per port; pasted back under Gear & ports">
          <a className="button" href={pathOf(files.ports, { site })} download>
            Download CSV
          </a>
        </Item>
        <Item
          what="Rule schedule to print"
          about="each zone in one sentence, then every line in the order in which it is asked"
        >
          <Link className="button" href={`/site/${session.siteId}/rules`}>
            Open the page
          </Link>
        </Item>
        <Item what="Rule schedule as CSV" about="one row per line, with the box that sees to it">
          <a className="button" href={pathOf(files.rules, { site })} download>
            Download CSV
          </a>
        </Item>
        {plan.binding.size > 0 && (
          <Item what="Bindings as CSV" about="one row per address that is entered at a box by hand">
            <a className="button" href={pathOf(files.bindings, { site })} download>
              Download CSV
            </a>
          </Item>
        )}
        <FilesForPrograms plan={plan} site={site} />
        <Item
          what="The whole plan as a file"
          about="reads back to the same plan, here or in another installation"
        >
          <a className="button" href={pathOf(files.plan, { site })} download>
            Download plan
          </a>
        </Item>
      </ul>
      <h3 className="pt-5 pb-1 font-bold">Bring in</h3>
      <ul className="max-w-[760px]">
        <Item
          what="A plan file as a change to this site"
          about={`shown line by line before it is accepted; at most ${FILE_LIMIT / 1048576} MB. As a new site: on the list of sites.`}
        >
          <FileButton
            label="Choose a file"
            accept=".json,application/json"
            onChoose={(file) => void bringIn(file)}
          />
        </Item>
        <Item
          what="A table, or a file of another program"
          about="segments, ranges, addresses, ports and cables as CSV or XLSX; dnsmasq, Kea, hosts, zones, nftables. Every row is judged, and what would change is shown before it is accepted."
        >
          <ChooseTable onProblem={setProblem} />
        </Item>
      </ul>
      {problem && (
        <p role="alert" className="mt-3 max-w-[760px] border-l-4 border-stop px-3 text-stop">
          {problem}
        </p>
      )}
    </>
  );
}
