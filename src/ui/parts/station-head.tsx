import type { ReactNode } from 'react';

export function StationHead({
  title,
  about,
  children,
}: {
  title: string;
  about: string;
  children?: ReactNode;
}) {
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-2 pb-3">
      <h2 className="tape text-[15px]">{title}</h2>
      <p className="min-w-0 flex-[1_1_13rem] text-muted max-[699px]:order-last max-[699px]:basis-full">
        {about}
      </p>
      <div className="no-print ml-auto flex flex-wrap gap-2 max-[699px]:ml-0">{children}</div>
    </div>
  );
}
