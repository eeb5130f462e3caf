import { FILE_LIMIT } from '@/contract';
import { Refusal } from '@/core/plan';

/** The text of a chosen file; a Refusal when it is too large, before it is read. */
export async function readFile(file: File): Promise<string> {
  if (file.size > FILE_LIMIT)
    throw new Refusal(
      'bad-input',
      `The file has ${Math.ceil(file.size / 1048576)} MB; at most ${FILE_LIMIT / 1048576} MB are read.`,
    );
  return file.text();
}
