declare module '*?nodeWorker' {
  const source: string;
  export default source;
}
