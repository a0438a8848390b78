// Groups of tests are named in the order in which they are to begin: the longest first.
'use strict';
const { default: Sequencer } = require('@jest/test-sequencer');

const isGroup = ({ path }) => path.includes('tests-together');

module.exports = class extends Sequencer {
  sort(tests) {
    const groups = tests.filter(isGroup).sort((one, other) => one.path.localeCompare(other.path));
    return [...groups, ...super.sort(tests.filter((test) => !isGroup(test)))];
  }
};
