/* global describe, require */
// Every test file told of, in one: each is a block by its name, and all share the modules they load.
const path = require('node:path');

for (const file of JSON.parse(process.env.HEATHSTEP_TEST_FILES))
  describe(path.relative(process.cwd(), file), () => {
    require(file);
  });
