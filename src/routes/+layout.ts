/** The data lives in the browser, so pages are made there; the server sends the same shell for each. */
export const ssr = false;
export const prerender = false;
