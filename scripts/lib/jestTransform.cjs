/* global require, module */
// Our own files for Jest, by swc; what they look up of the language is looked up once a file. Jest runs tests in a context of
// their own, in which each look at a global is dear: arithmetic in a loop is ten times as fast so.
const swc = require('@swc/jest');

const LOOKED_UP = [
  'Array',
  'Float32Array',
  'Float64Array',
  'Int32Array',
  'JSON',
  'Map',
  'Math',
  'Number',
  'Object',
  'Set',
  'String',
  'Uint16Array',
  'Uint8Array',
];
// On the line the code begins with, so that lines stay as they are.
const HEAD = `"use strict";const ${LOOKED_UP.map((name) => `${name}=globalThis.${name}`).join(',')};`;

module.exports = {
  createTransformer(options) {
    const made = swc.createTransformer(options);
    const headed = (result) => ({ ...result, code: `${HEAD}${result.code}` });
    return {
      ...made,
      process: (...args) => headed(made.process(...args)),
      processAsync: async (...args) => headed(await made.processAsync(...args)),
      getCacheKey: (...args) => `${made.getCacheKey(...args)}-headed`,
    };
  },
};
