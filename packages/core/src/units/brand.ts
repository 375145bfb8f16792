/**
 * A name beside a plain type, so that two of a kind cannot be swapped: ids of devices and of sounds, milliseconds and
 * microseconds. What has no name is taken as any of them: a text or a number that is written out, what was computed.
 */
export type Brand<T, Name extends string> = T & { readonly brand?: Name };
