/** `1 reading`, `380 readings`, `1,204 ledger entries`. */
export function countText(n: number, one: string, many = `${one}s`): string {
  return `${n.toLocaleString("en")} ${n === 1 ? one : many}`;
}
