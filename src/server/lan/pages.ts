/** The two pages of pairing, without scripts: they are read before anybody is let in. */

const page = (title: string, body: string): string =>
  `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${title}</title>` +
  `<body style="font:18px/1.4 sans-serif;margin:2rem;max-width:30rem">${body}</body></html>`;

/** Asks before it takes the offer: what looks at links ahead of people would use it up. */
export const askPage = (offer: string): string =>
  page(
    'Pair this phone',
    '<h1 style="font-size:1.3rem">Pair this phone with one run?</h1>' +
      '<p>For two weeks it can read the plan of this site and say what became of the steps of the run. It changes nothing in the plan and sees no other site.</p>' +
      `<form method="post" action="/pair"><input type="hidden" name="offer" value="${offer}">` +
      '<button style="font:inherit;font-weight:700;min-height:3rem;padding:0 1.2rem;border:2px solid #111d18;border-radius:0;background:#d2ef3a;color:#111d18">Pair this phone</button></form>',
  );

export const refusedPage = (text: string): string =>
  page('Not paired', `<h1 style="font-size:1.3rem">Not paired</h1><p>${text}</p>`);
