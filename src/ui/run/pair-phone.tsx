'use client';

import { toDataURL } from 'qrcode';
import { useEffect, useState } from 'react';
import { log } from '@/contract/log';
import { isTold } from '../session/attempt';
import { ask } from '../session/api';
import { useSession } from '../session/context';
import { Choice } from '../parts/choice';
import { Dialog } from '../parts/dialog';

interface Offered {
  readonly urls: readonly string[];
  readonly problem: string;
}

/** A code that pairs one phone with a run, by each address at which phones reach this machine. */
export function PairPhone({ run, onClose }: { run: string; onClose: () => void }) {
  const { siteId: site } = useSession();
  const [offered, setOffered] = useState<Offered | null>(null);
  const [chosen, setChosen] = useState(0);
  const [picture, setPicture] = useState('');
  const [ended, setEnded] = useState<number | null>(null);
  const url = offered?.urls[chosen];
  useEffect(() => {
    let stale = false;
    ask(log.offer, { site, body: { run } })
      .then(({ urls }) => stale || setOffered({ urls, problem: '' }))
      .catch((error: unknown) => {
        if (!isTold(error)) throw error;
        if (!stale) setOffered({ urls: [], problem: error.message });
      });
    return () => {
      stale = true;
    };
  }, [site, run]);
  useEffect(() => {
    let stale = false;
    if (url) void toDataURL(url, { margin: 2, width: 264 }).then((data) => stale || setPicture(data));
    return () => {
      stale = true;
    };
  }, [url]);
  const end = () => void ask(log.unpair, { site, query: { run } }).then((answer) => setEnded(answer.ended));
  return (
    <Dialog
      title="Pair a phone"
      describe="For two weeks the phone reads this plan and says what became of this run, and nothing else. It has to be on the same network."
      open
      onClose={onClose}
    >
      {!offered && <p role="status">Asking for a code…</p>}
      {offered?.problem && (
        <p role="alert" className="border-l-4 border-stop px-3">
          {offered.problem}
        </p>
      )}
      {url && (
        <>
          {picture && <img src={picture} width={264} height={264} alt="The code to scan with the phone" />}
          {offered.urls.length > 1 && (
            <label className="block pb-2">
              By which address
              <Choice
                lined
                label="By which address"
                value={String(chosen)}
                options={offered.urls.map((each, at) => ({ value: String(at), label: new URL(each).host }))}
                onChoose={(at) => setChosen(Number(at))}
              />
            </label>
          )}
          <p className="mono text-[13px] break-all select-all">{url}</p>
          <p className="py-2 text-[14px]">
            It works once, within ten minutes. The phone warns of a certificate it does not know: compare the
            fingerprint with the one where the program was started.
          </p>
        </>
      )}
      <button type="button" className="button" onClick={end}>
        Unpair all phones of this run
      </button>
      {ended !== null && (
        <p role="status" className="pt-2">
          {ended === 0 ? 'No phone was paired.' : 'They see the run no more; the code above is void too.'}
        </p>
      )}
    </Dialog>
  );
}
