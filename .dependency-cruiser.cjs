/** No file and no folder needs what needs it: a reader can understand one without the other. */
module.exports = {
  forbidden: [
    { name: 'no-circles-of-files', severity: 'error', from: {}, to: { circular: true } },
    { name: 'no-circles-of-folders', severity: 'error', scope: 'folder', from: {}, to: { circular: true } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '\\.test\\.tsx?$|\\.css$|node_modules' },
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: { extensions: ['.ts', '.tsx', '.js', '.cjs'] },
  },
};
