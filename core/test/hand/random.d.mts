export interface Random {
  next(): number;
  between(low: number, high: number): number;
  whole(low: number, high: number): number;
  chance(part: number): boolean;
  pick<T>(list: readonly T[]): T;
  normal(spread: number): number;
}

export function seeded(seed: number): Random;
