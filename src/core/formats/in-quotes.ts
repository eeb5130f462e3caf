/** A text as dnsmasq and FreeRADIUS take it: whole, with spaces, commas and all. */
export const inQuotes = (text: string): string => `"${text.replace(/["\\]/g, '\\$&')}"`;
