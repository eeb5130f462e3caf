/**
 * Who is told what is being read of a plan. Collections report every read here; nobody listens but while a derived value
 * is being made, or while a memo makes sure that it reads nothing but its key.
 */
export interface Reader {
  /** One record by its id. */
  one(table: number, id: string): void;
  /** The records of a bucket. */
  bucket(table: number, key: string): void;
  /** The records under a key of an index. */
  key(table: number, index: string, key: string): void;
  /** Any record of the table. */
  whole(table: number): void;
}

/** One holder for the whole program: making values is synchronous. */
export const reading: { reader: Reader | null } = { reader: null };

/** Runs something with another reader and puts the former back, whatever happens. */
export function readBy<T>(reader: Reader | null, run: () => T): T {
  const outer = reading.reader;
  reading.reader = reader;
  try {
    return run();
  } finally {
    reading.reader = outer;
  }
}
