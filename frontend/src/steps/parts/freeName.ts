/** A name that none of these is yet, great or small letters alike: the wanted one, or with the first number that is free. */
export function freeName(wanted: string, names: readonly string[]): string {
  const taken = new Set(names.map((name) => name.toLowerCase()));
  let name = wanted;
  for (let n = 2; taken.has(name.toLowerCase()); n++) name = `${wanted} ${n}`;
  return name;
}
