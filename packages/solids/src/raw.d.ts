/** Text files that tests read. */
declare module '*?raw' {
  const text: string;
  export default text;
}
