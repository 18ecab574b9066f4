/** Anything with a share of the player's golf. */
interface Shared {
  share: number;
}

/** Shares that sum to 1, in the proportion that they have; even ones where there is none. */
export function scaled<One extends Shared>(all: readonly One[]): One[] {
  const sum = all.reduce((total, { share }) => total + share, 0);
  return all.map((one) => ({ ...one, share: sum > 0 ? one.share / sum : 1 / all.length }));
}

/** With one more at the end, which takes an even share of what all others have. */
export function withAnother<One extends Shared>(all: readonly One[], another: One): One[] {
  const share = 1 / (all.length + 1);
  return [...all.map((one) => ({ ...one, share: one.share * (1 - share) })), { ...another, share }];
}

/** Without the one at a place, whose share the others take. */
export const without = <One extends Shared>(all: readonly One[], place: number): One[] =>
  scaled(all.filter((_, n) => n !== place));
