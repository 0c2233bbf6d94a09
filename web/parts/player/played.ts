/**
 * What really played of a film, in seconds: what was jumped over is no part of it (HTML, `played` of media elements).
 */
export const playedSeconds = (ranges: TimeRanges): number =>
  Array.from({ length: ranges.length }, (_, at) => ranges.end(at) - ranges.start(at)).reduce((sum, one) => sum + one, 0)
