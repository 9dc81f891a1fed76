/** Words of a language, the commonest first. */
export class WordList {
  /** What begins a word, by what it costs at least to end one that begins so. */
  private readonly ranks = new Map<string, number>();
  private readonly beginnings = new Set<string>();

  /** Lists from common to rare; of each a rank, from 0. */
  constructor(tiers: readonly (readonly string[])[]) {
    for (const [rank, words] of tiers.entries())
      for (const word of words) {
        const plain = word.toLowerCase();
        if (this.ranks.has(plain)) continue;
        this.ranks.set(plain, rank);
        for (let n = 1; n <= plain.length; n++) this.beginnings.add(plain.slice(0, n));
      }
  }

  /** How rare a word is, from 0; undefined where it is not in the list. */
  rankOf(word: string): number | undefined {
    return this.ranks.get(word.toLowerCase());
  }

  begins(text: string): boolean {
    return this.beginnings.has(text.toLowerCase());
  }
}
