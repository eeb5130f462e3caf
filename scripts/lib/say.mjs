/** Ends the script with a plain message and a non-zero exit. */
export class Stop extends Error {}

/** Runs `main`; a Stop prints its message, anything else its stack. Either way the exit is non-zero. */
export async function entry(main) {
  try {
    await main();
  } catch (error) {
    console.error(error instanceof Stop ? `\n${error.message}` : error);
    process.exit(1);
  }
}
