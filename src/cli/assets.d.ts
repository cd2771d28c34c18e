/** What the command line's bundle carries along (scripts/build-cli.mjs). */
declare module '*.woff2' {
  /** A data URL. */
  const url: string;
  export = url;
}
/** The style sheet of colours and measures, as text. */
declare const TOKENS: string;
