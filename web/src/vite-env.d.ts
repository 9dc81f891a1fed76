declare module '*.ttf?url' {
  const url: string;
  export default url;
}

declare module '*.css';
declare module '@fontsource/*';

declare module '*.json?url' {
  const url: string;
  export default url;
}
