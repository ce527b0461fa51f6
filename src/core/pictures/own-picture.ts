/** Names of icons that are pictures people brought: the beginning of the hash of their bytes behind this. */
export const OWN_PICTURE = /^own-([0-9a-f]{24})$/;
