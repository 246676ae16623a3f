import { createHash } from 'node:crypto';
import swc from '@swc/core';
import { compileScript, parse } from 'vue/compiler-sfc';

/** Makes a module of a component for Jest: its script with its template within, without its style. */
export default {
  process(source, file) {
    const { descriptor, errors } = parse(source, { filename: file });
    if (errors.length > 0) throw errors[0];
    const id = createHash('sha1').update(file).digest('hex').slice(0, 8);
    const { content } = compileScript(descriptor, { id, inlineTemplate: true, fs: undefined });
    return swc.transformSync(content, {
      filename: `${file}.ts`,
      sourceMaps: 'inline',
      jsc: { parser: { syntax: 'typescript' }, target: 'es2022' },
      module: { type: 'es6' },
    });
  },
};
