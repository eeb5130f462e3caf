import type { DBSchema } from 'idb';
import { routes } from '@/contract';
import { type Formers, formersOf } from '@/core/commission';
import { type Plan, decodePlan } from '@/core/plan';
import type { FormerText } from '@/worker/protocol';
import { Offline, askText } from './api';
import { keeper } from './keeper';

interface Schema extends DBSchema {
  formers: { key: [site: string, revision: number]; value: { site: string; revision: number; text: string } };
}
const kept = () =>
  keeper<Schema>(
    'dianome-formers',
    (db) => void db.createObjectStore('formers', { keyPath: ['site', 'revision'] }),
  );

/** Plans of a site as they were at earlier changes. Such a plan never changes: it is asked for once and kept in this browser. */
export class FormerPlans {
  private readonly asked = new Map<number, Promise<string>>();

  constructor(private readonly siteId: string) {}

  /** Those that boxes of a plan were set up by. Throws an ApiProblem, or Offline where one was never asked for here. */
  neededBy(plan: Plan): Promise<FormerText[]> {
    return Promise.all(
      formersOf(plan).map(async (revision) => ({ revision, text: await this.textOf(revision) })),
    );
  }

  private textOf(revision: number): Promise<string> {
    const known = this.asked.get(revision);
    if (known) return known;
    const asked = this.find(revision);
    this.asked.set(revision, asked);
    // What failed is asked for again.
    asked.catch(() => this.asked.delete(revision));
    return asked;
  }

  private async find(revision: number): Promise<string> {
    const site = this.siteId;
    const db = await kept();
    try {
      const text = await askText(routes.sites.plan, { site, query: { at: String(revision) } });
      await db?.put('formers', { site, revision, text }).catch(() => undefined);
      return text;
    } catch (error) {
      // The server knows best: a site may have been deleted and begun anew.
      const here = error instanceof Offline ? await db?.get('formers', [site, revision]) : undefined;
      if (!here) throw error;
      return here.text;
    } finally {
      db?.close();
    }
  }
}

/** The plans in texts that the server answered. */
export const formersIn = (texts: readonly FormerText[]): Formers =>
  new Map(texts.map(({ revision, text }) => [revision, decodePlan(JSON.parse(text).plan)]));
