import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { everyFile } from '../server/documents/every-file';
import type { Command } from './command';
import { Misuse, planIn } from './files';

/** The files a plan can be taken away as: listed, written to a folder, or one of them as it is. */
export const exported: Command = {
  usage: 'PLAN [FILE] [--to FOLDER] [--revision N]',
  about: 'lists the files a plan can be taken away as, prints one, or writes all to a folder',
  takes: { to: 'folder', revision: 'number' },
  run: async ({ words: [plan, name], switches, today }) => {
    const revision = Number(switches.get('revision') ?? 0);
    if (!Number.isInteger(revision) || revision < 0)
      throw new Misuse(`“${switches.get('revision')}” is no revision; write a number from 0.`);
    const files = everyFile(planIn(plan), { today, revision });
    if (name !== undefined) {
      const found = files.find((file) => file.path === name);
      if (!found) throw new Misuse(`There is no ${name}; without a name the files are listed.`);
      const text = new TextDecoder().decode(await found.bytes());
      return { code: 0, text: text.replace(/\n$/, ''), json: { path: name, text } };
    }
    const list = files.map(({ path: at, title }) => ({ path: at, title }));
    const folder = switches.get('to');
    if (folder === undefined)
      return { code: 0, text: list.map(({ path: at, title }) => `${at}  (${title})`).join('\n'), json: list };
    for (const file of files) {
      const at = path.join(folder, file.path);
      mkdirSync(path.dirname(at), { recursive: true });
      writeFileSync(at, await file.bytes());
    }
    return { code: 0, text: `${files.length} files written to ${folder}`, json: { folder, files: list } };
  },
};
