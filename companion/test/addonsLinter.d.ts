declare module 'addons-linter' {
  interface Said {
    code: string;
    message: string;
    file?: string;
  }

  const linter: {
    createInstance(options: { config: object; runAsBinary: boolean }): {
      run(): Promise<{ errors: Said[]; warnings: Said[] }>;
    };
  };
  export default linter;
}
