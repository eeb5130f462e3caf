/** A file to save under a name made of the site's own; names are reduced to plain ASCII for the header. */
export const download = (text: string, type: string, siteName: string, ending: string): Response => {
  const base =
    siteName
      .normalize('NFKD')
      .replace(/[^A-Za-z0-9]+/g, '-')
      .replace(/^-|-$/g, '')
      .toLowerCase() || 'site';
  return new Response(text, {
    headers: {
      'content-type': type,
      'content-disposition': `attachment; filename="${base}${ending}"`,
      'cache-control': 'no-store',
    },
  });
};
