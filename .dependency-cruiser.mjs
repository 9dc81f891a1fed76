/** Which file may import which; every rule says why. Types count as much as values. */
export default {
  forbidden: [
    {
      name: 'no-circle',
      comment: 'Files that import each other cannot be read, tested or moved one at a time.',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(dist|dist-types|node_modules)/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: { conditionNames: ['source', 'import', 'types', 'default'], extensions: ['.ts', '.tsx', '.js'] },
  },
};
