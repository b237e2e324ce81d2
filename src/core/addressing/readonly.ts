/** A plain-data type that nobody may write to, all the way down. */
export type Deep<T> = T extends readonly (infer U)[]
  ? readonly Deep<U>[]
  : T extends object
    ? { readonly [K in keyof T]: Deep<T[K]> }
    : T;
