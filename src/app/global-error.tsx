'use client';

/** The last resort, when not even the frame of the page can be shown. */
export default function GlobalError() {
  return (
    <html lang="en">
      <body>
        <main style={{ padding: 24, fontFamily: 'sans-serif' }}>
          <h1>This page cannot be shown</h1>
          <p>What you typed is kept in this browser. Load the page again.</p>
          <button type="button" onClick={() => window.location.reload()}>
            Load it again
          </button>
        </main>
      </body>
    </html>
  );
}
