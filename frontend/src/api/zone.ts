const ZONE_COOKIE = "oblatus_zone";
const YEAR_S = 365 * 24 * 3600;

/** Tells the server in which time zone its days are: those of sentences and prints, too, which are asked for by a link. */
export function tellZone() {
  const { timeZone } = new Intl.DateTimeFormat().resolvedOptions();
  // biome-ignore lint/suspicious/noDocumentCookie: the other way is not in every browser, and not without encryption
  document.cookie = `${ZONE_COOKIE}=${timeZone}; path=/; max-age=${YEAR_S}; samesite=strict`;
}
