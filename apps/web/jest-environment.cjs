// A browser for component tests: jsdom, with the web globals that Node has and jsdom hides.
const { TestEnvironment } = require('jest-environment-jsdom');

module.exports = class extends TestEnvironment {
  async setup() {
    await super.setup();
    Object.assign(this.global, { TextEncoder, TextDecoder, Request, Response, Headers, structuredClone });
  }
};
