'use client';

import { Camera } from 'lucide-react';
import { useEffect, useId, useState } from 'react';
import { log } from '@/contract/log';
import { Refusal } from '@/core/plan';
import { pathOf } from '../session/api';
import { useLogBook } from '../session/log-context';
import { scaled } from './scaled';

/** Photos to hang on an entry; each is scaled down here. */
export function TakePhotos({
  taken,
  onTaken,
}: {
  taken: readonly string[];
  onTaken: (photos: readonly string[]) => void;
}) {
  const book = useLogBook();
  const [problem, setProblem] = useState('');
  const [busy, setBusy] = useState(false);
  const id = useId();
  const take = async (files: readonly File[]) => {
    setBusy(true);
    setProblem('');
    const ids = [...taken];
    for (const file of files)
      try {
        ids.push(book.addPhoto(await scaled(file)));
      } catch (error) {
        if (!(error instanceof Refusal)) throw error;
        setProblem(error.message);
      }
    onTaken(ids);
    setBusy(false);
  };
  return (
    <div className="flex flex-wrap items-center gap-2">
      <label
        htmlFor={id}
        className="button min-h-touch cursor-pointer focus-within:outline-2 focus-within:outline-offset-2"
      >
        <Camera size={18} aria-hidden="true" />
        {busy ? 'Scaling down…' : 'Photo'}
        <input
          id={id}
          type="file"
          accept="image/*"
          multiple
          className="sr-only"
          onChange={(event) => {
            const files = [...(event.target.files ?? [])];
            event.target.value = '';
            void take(files);
          }}
        />
      </label>
      {taken.map((photo, at) => (
        <span key={photo} className="relative">
          <Photo id={photo} number={at + 1} />
          <button
            type="button"
            className="button absolute top-0 right-0 min-h-6 px-1"
            aria-label={`Leave out photo ${at + 1}`}
            onClick={() => onTaken(taken.filter((other) => other !== photo))}
          >
            ×
          </button>
        </span>
      ))}
      {problem && (
        <p role="alert" className="w-full border-l-4 border-stop px-2">
          {problem}
        </p>
      )}
    </div>
  );
}

/** The photos of an entry, beside each other; nothing where there are none. */
export const Photos = ({ ids }: { ids: readonly string[] }) =>
  ids.length > 0 && (
    <span className="flex flex-wrap gap-2 py-1">
      {ids.map((id, at) => (
        <Photo key={id} id={id} number={at + 1} />
      ))}
    </span>
  );

/** A photo of the log, from this browser until it is sent. */
function Photo({ id, number }: { id: string; number: number }) {
  const book = useLogBook();
  const [url, setUrl] = useState<string | null>(null);
  const [lost, setLost] = useState(false);
  useEffect(() => {
    let own: string | null = null;
    let here = true;
    void book.photo(id).then((blob) => {
      if (!here) return;
      own = blob && URL.createObjectURL(blob);
      setUrl(own ?? pathOf(log.photo, { site: book.siteId, query: { id } }));
    });
    return () => {
      here = false;
      if (own) URL.revokeObjectURL(own);
    };
  }, [book, id]);
  if (lost) return <span className="text-[13px] text-muted">photo {number} is at the server</span>;
  if (!url) return null;
  return (
    // Scaled down already.
    <img
      src={url}
      alt={`Photo ${number}`}
      className="h-16 w-16 border border-ink object-cover"
      onError={() => setLost(true)}
    />
  );
}
