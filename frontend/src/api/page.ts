/** This opening of the page, as the server knows it. */
export const PAGE = Array.from(crypto.getRandomValues(new Uint8Array(12)), (byte) =>
  byte.toString(36).padStart(2, "0"),
).join("");
