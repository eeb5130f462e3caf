import type { Place, Stock } from '../plan';
import { type Model, type PortBlock, modelById } from '../model/wiring';

/** A model for boxes at hand: as a switch or gateway of its size usually is. */
function modelAtHand(stock: Stock): Model {
  const base = modelById.get(
    stock.sort === 'gateway' ? 'gateway-6' : stock.sort === 'access-point' ? 'ap-1' : 'switch-24',
  )!;
  const powers = stock.sort === 'switch' && stock.poeBudget !== null;
  const poeClass = stock.sort === 'access-point' || powers ? 4 : null;
  const block = (count: number, kind: PortBlock['media']): PortBlock[] =>
    count === 0
      ? []
      : [
          {
            count,
            media: kind,
            speed: 1000,
            rows: count > 8 ? 2 : 1,
            poeClass: kind === 'copper' ? poeClass : null,
          },
        ];
  return {
    ...base,
    id: `stock ${stock.id}`,
    name: stock.model,
    vlanAware: stock.vlanAware,
    poeBudget: stock.sort === 'switch' ? stock.poeBudget : null,
    blocks: [...block(stock.copper, 'copper'), ...block(stock.fibre, 'fibre')],
    ...(stock.vlanAware ? {} : { vlanLimit: null, spanningTree: 'none', snooping: false, dot1x: false }),
  };
}

/** Boxes at hand that are not used yet, each one by itself. */
export class AtHand {
  private readonly left: { readonly stock: Stock; readonly model: Model; used: boolean }[];

  constructor(stock: readonly Stock[]) {
    this.left = stock.flatMap((one) =>
      Array.from({ length: one.count }, () => ({ stock: one, model: modelAtHand(one), used: false })),
    );
  }

  /** Those of a sort that may stand in a place and do there; what belongs there comes first. */
  of(sort: Stock['sort'], place: Place, flat: boolean) {
    return this.left
      .filter(
        ({ used, stock }) =>
          !used &&
          stock.sort === sort &&
          (stock.vlanAware || flat) &&
          (stock.place === null || stock.place === place.id),
      )
      .sort((a, b) => Number(b.stock.place !== null) - Number(a.stock.place !== null));
  }

  unused(): readonly Stock[] {
    return [...new Set(this.left.filter(({ used }) => !used).map(({ stock }) => stock))];
  }
}
