/** How things are dragged: by pointer, with the pointer caught; keys do something of their own everywhere. */
export const BY_POINTER = { pointer: { keys: false } } as const;
