/**
 * A name beside a plain type, so that two of a kind cannot be swapped: ids of devices and of sounds, milliseconds and
 * microseconds. A plain number or text passes for any of them; one brand never passes for another.
 */
export type Brand<T, Name extends string> = T & { readonly brand?: Name };
