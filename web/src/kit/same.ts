/** A value as text whatever the order of its fields; what is null is as what is not there. */
export const plainly = (value: unknown): string =>
  JSON.stringify(value, (_, v: unknown) =>
    v && typeof v === 'object' && !Array.isArray(v)
      ? Object.fromEntries(
          Object.entries(v)
            .filter(([, one]) => one !== null && one !== undefined)
            .sort(([a], [b]) => (a < b ? -1 : 1)),
        )
      : v,
  );

/** Whether two values say the same. */
export const same = (one: unknown, other: unknown): boolean => plainly(one) === plainly(other);
