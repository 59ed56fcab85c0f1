/** What is not judged here: said so wherever it stands, and never called satisfied or not asked for. */

/** Largest service that is judged, amperes. */
export const LARGEST_SERVICE = 400;
